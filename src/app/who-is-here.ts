import { headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { contextFor } from '@/server/operations/deciding/context/context.ts';
import { freeLapsed } from '@/server/operations/deciding/writing/lapse.ts';
import { isEmpty } from '@/server/operations/people/found-people.ts';
import { inWindow } from '@/server/operations/people/session.ts';

/** Who is signed in; otherwise the way to the sign-in page (and back here), or, where nobody is yet, to the beginning. */
export async function whoIsHere() {
  const incoming = await headers();
  const here = await inWindow(incoming);
  if (here) {
    const ctx = contextFor(here.person, undefined, here.session);
    freeLapsed(ctx);
    return { person: here.person, ctx };
  }
  if (isEmpty()) redirect('/welcome');
  const path = incoming.get('x-path') ?? '/';
  redirect(path === '/' ? '/sign-in' : `/sign-in?to=${encodeURIComponent(path)}`);
}
