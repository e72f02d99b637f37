import { whoIsHere } from '@/app/who-is-here.ts';
import { findBoard } from '@/server/operations/people.ts';
import { NothingHere } from '@/ui/common/nothing-here.tsx';
import { Sightlines } from '@/ui/sightlines/sightlines.tsx';

export default async function SightlinesPage({ params }: { params: Promise<{ who: string }> }) {
  const { who } = await params;
  const { ctx } = await whoIsHere();
  const board = findBoard(ctx, who);
  return board ? <Sightlines key={board.calendar} calendar={board.calendar} /> : <NothingHere />;
}
