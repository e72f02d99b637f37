import { redirect } from 'next/navigation';
import { whoIsHere } from '../who-is-here.ts';

/** Asking somebody for access, from an address that doesn't know who is signed in. */
export default async function AskPage() {
  const { person } = await whoIsHere();
  redirect(person.inside ? `/for/${person.handle}/people?ask=somebody` : '/');
}
