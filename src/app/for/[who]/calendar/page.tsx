import { whoIsHere } from '@/app/who-is-here.ts';
import { findBoard } from '@/server/operations/people.ts';
import { Board } from '@/ui/board/board.tsx';
import { NothingHere } from '@/ui/common/nothing-here.tsx';

export default async function CalendarPage(props: {
  params: Promise<{ who: string }>;
  searchParams: Promise<{ of?: string | string[] }>;
}) {
  const { who } = await props.params;
  const { of } = await props.searchParams;
  const { ctx } = await whoIsHere();
  const board = findBoard(ctx, typeof of === 'string' ? of : who);
  if (!board) return <NothingHere />;
  return <Board key={board.calendar} calendar={board.calendar} name={board.name} />;
}
