import { whoIsHere } from '@/app/who-is-here.ts';
import { findBoard } from '@/server/operations/people/people.ts';
import { NothingHere } from '@/ui/common/nothing-here.tsx';
import { DaySheet } from '@/ui/items/views/day-sheet.tsx';

/** A day of the principal's for their folder, or a week of days, a page each. */
export default async function DaySheetPage(props: { params: Promise<{ who: string }> }) {
  const { who } = await props.params;
  const { ctx } = await whoIsHere();
  const board = findBoard(ctx, who);
  return board ? <DaySheet calendar={board.calendar} name={board.name} /> : <NothingHere />;
}
