import { redirect } from 'next/navigation';
import { whoIsHere } from '../who-is-here.ts';

/** One's own Sightlines, wherever an address that many get leads each of them; with `who`, at giving access to somebody. */
export default async function OwnSightlines(props: { searchParams: Promise<{ who?: string | string[] }> }) {
  const { who } = await props.searchParams;
  const { person } = await whoIsHere();
  const query = typeof who === 'string' ? `?${new URLSearchParams({ who })}` : '';
  redirect(`/for/${person.handle}/sightlines${query}`);
}
