import { redirect } from 'next/navigation';
import { beginsAtDesk } from '@/server/operations/desk/read-desk.ts';
import { whoIsHere } from './who-is-here.ts';

export default async function Home() {
  const { person, ctx } = await whoIsHere();
  redirect(`/for/${person.handle}/${person.inside && beginsAtDesk(ctx) ? 'desk' : 'calendar'}`);
}
