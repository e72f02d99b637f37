import { whoIsHere } from '@/app/who-is-here.ts';
import { findBoard } from '@/server/operations/people/people.ts';
import { NothingHere } from '@/ui/common/nothing-here.tsx';
import { OpeningsScreen } from '@/ui/openings/openings-screen.tsx';

/** The search for times that work, for whose calendar this is. */
export default async function OpeningsPage(props: { params: Promise<{ who: string }> }) {
  const { who } = await props.params;
  const { ctx } = await whoIsHere();
  const board = ctx.viewer.inside ? findBoard(ctx, who) : null;
  return board ? <OpeningsScreen key={board.calendar} calendar={board.calendar} name={board.name} /> : <NothingHere />;
}
