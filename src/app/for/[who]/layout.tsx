import { notFound, redirect } from 'next/navigation';
import type { ReactNode } from 'react';
import { whoIsHere } from '@/app/who-is-here.ts';
import { hub } from '@/server/live/hub.ts';
import { readFrame } from '@/server/operations/frame/read-frame.ts';
import { findBoard } from '@/server/operations/people/people.ts';
import { Frame } from '@/ui/frame/frame.tsx';

export default async function ForLayout({
  children,
  params,
}: {
  children: ReactNode;
  params: Promise<{ who: string }>;
}) {
  const { who } = await params;
  const { ctx } = await whoIsHere();
  // From here on nothing it is told is missed: its window needn't ask for everything again once it listens.
  const page = hub().expect(ctx.viewer.id);
  const frame = readFrame(ctx);
  const guest = !frame.me.inside && frame.me.handle === who;
  if (!guest && !frame.principals.some((p) => p.handle === who)) {
    // Someone one no longer acts for can still be looked at, as far as they let one.
    if (findBoard(ctx, who)) redirect(`/for/${frame.me.handle}/calendar?of=${encodeURIComponent(who)}`);
    notFound();
  }
  return (
    <Frame initial={frame} who={who} page={page}>
      {children}
    </Frame>
  );
}
