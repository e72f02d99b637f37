import { redirect } from 'next/navigation';
import { whoIsHere } from '../who-is-here.ts';

/** A calendar for whoever signs in, each as much of it as they were given: an address that many get leads each of them to their own window. */
export default async function LookPage(props: {
  searchParams: Promise<{ of?: string | string[]; c?: string | string[] }>;
}) {
  const { of, c } = await props.searchParams;
  const { person } = await whoIsHere();
  const query = new URLSearchParams({
    ...(typeof of === 'string' && of !== person.handle ? { of } : {}),
    ...(typeof c === 'string' ? { c } : {}),
  });
  redirect(`/for/${person.handle}/calendar?${query}`);
}
