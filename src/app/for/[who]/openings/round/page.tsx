import { whoIsHere } from '@/app/who-is-here.ts';
import { findBoard } from '@/server/operations/people/people.ts';
import { NothingHere } from '@/ui/common/nothing-here.tsx';
import { RoundScreen } from '@/ui/openings/round.tsx';

/** Several meetings placed together, for whose calendar this is. */
export default async function RoundPage(props: { params: Promise<{ who: string }> }) {
  const { who } = await props.params;
  const { ctx } = await whoIsHere();
  const board = ctx.viewer.inside ? findBoard(ctx, who) : null;
  return board ? <RoundScreen key={board.calendar} calendar={board.calendar} name={board.name} /> : <NothingHere />;
}
