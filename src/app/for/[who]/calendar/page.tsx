import { whoIsHere } from '@/app/who-is-here.ts';
import { evenOut } from '@/server/http/route.ts';
import { findBoard } from '@/server/operations/people/people.ts';
import { NothingHere } from '@/ui/common/nothing-here.tsx';
import { RequestFromSomebody } from '@/ui/common/requests/request-from-somebody.tsx';
import { Board } from '@/ui/items/board/board.tsx';
import { GuestStart } from '@/ui/people/guest-start.tsx';

const text = (value: string | string[] | undefined): string | undefined =>
  typeof value === 'string' && value !== '' ? value : undefined;

export default async function CalendarPage(props: {
  params: Promise<{ who: string }>;
  searchParams: Promise<{ of?: string | string[]; c?: string | string[] }>;
}) {
  const { who } = await props.params;
  const { of, c } = await props.searchParams;
  const { ctx } = await whoIsHere();
  const whose = text(of) ?? who;
  if (!ctx.viewer.inside && whose === ctx.viewer.handle) return <GuestStart />;
  const begun = performance.now();
  const board = findBoard(ctx, whose, text(c));
  // Hidden or missing: said at the same moment.
  await evenOut(begun);
  if (!board)
    return (
      <NothingHere>
        <RequestFromSomebody />
      </NothingHere>
    );
  return <Board key={board.calendar} calendar={board.calendar} name={board.name} />;
}
