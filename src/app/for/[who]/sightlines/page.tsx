import { whoIsHere } from '@/app/who-is-here.ts';
import { listEverything } from '@/server/operations/sharing/everything.ts';
import { findSharedOf } from '@/server/operations/sharing/sightlines.ts';
import { NothingHere } from '@/ui/common/nothing-here.tsx';
import { NotGiven } from '@/ui/sharing/not-given.tsx';
import { Sightlines } from '@/ui/sharing/sightlines.tsx';

const text = (value: string | string[] | undefined): string | undefined =>
  typeof value === 'string' && value !== '' ? value : undefined;

export default async function SightlinesPage(props: {
  params: Promise<{ who: string }>;
  searchParams: Promise<{ of?: string | string[]; c?: string | string[] }>;
}) {
  const { who } = await props.params;
  const { of, c } = await props.searchParams;
  const { ctx } = await whoIsHere();
  const shared = findSharedOf(ctx, text(of) ?? who, text(c));
  if (shared) return <Sightlines key={shared.calendar} calendar={shared.calendar} />;
  const seen = listEverything(ctx, text(of) ?? who);
  return seen.ok && seen.value.all.length > 0 ? <NotGiven {...seen.value} /> : <NothingHere />;
}
