import { redirect } from 'next/navigation';
import { whoIsHere } from './who-is-here.ts';

export default async function Home() {
  const { person } = await whoIsHere();
  redirect(`/for/${person.handle}/calendar`);
}
