import type { z } from 'zod';
import type { TimesAnswer, timesBody } from '@/contract/openings.ts';
import { findOpenings, type OpeningsPerson, type OpeningsRequest, rankRuns, WEIGHTS } from '@/core/openings/index.ts';
import { fromWallLenient, instantText, isZone, parseDate } from '@/core/time/index.ts';
import { allJourneys } from '../../repositories/journeys.ts';
import { personByAddress, personById } from '../../repositories/people.ts';
import { ok, type Refusal, type Result, refuse } from '../../result.ts';
import { type Context, type Decided, findCalendar, findItem, isRefusal } from '../deciding/index.ts';
import { type AskedPerson, askedPeople, askedPerson } from './asked-people.ts';

const MINUTE = 60_000;
const DAY = 86_400_000;
const MOST_RUNS = 60;

/** A search made ready for one who asks: who comes, as they see them, and when it may be. */
export interface Asked {
  readonly decided: Decided;
  readonly people: readonly AskedPerson[];
  readonly unknown: readonly string[];
  readonly journeys: ReturnType<typeof allJourneys>;
  readonly request: OpeningsRequest;
  readonly nameOf: (id: string) => string;
  readonly text: (minute: number) => string;
}

/** Reads who is asked about a calendar's owner and others, over the days of a search and so many around them. */
export function askFor(ctx: Context, key: string, body: z.infer<typeof timesBody>, around = 0): Asked | Refusal {
  const decided = findCalendar(ctx, key);
  if (isRefusal(decided)) return decided;
  const owner = personById(ctx.db, decided.calendar.ownerId);
  const first = parseDate(body.from);
  if (!isZone(body.zone)) return refuse('badInput', { fields: { zone: 'zone' } });
  if (!owner || first === null) return refuse('badInput', { fields: { from: 'date' } });
  const from = fromWallLenient(body.zone, first);
  const until = fromWallLenient(body.zone, first + body.days * DAY);
  const [since, till] = [from - around * DAY, until + around * DAY];
  const about = body.item === null ? null : findItem(ctx, body.item);
  const item = about && !isRefusal(about) ? about.item : null;
  const me = askedPerson(ctx, owner, decided, 'must', since, till, item);
  const others = body.people.filter((p) => p.address !== owner.address);
  const asked = askedPeople(ctx, others, since, till, item);
  return {
    decided,
    people: [me, ...asked.people],
    unknown: asked.unknown,
    journeys: allJourneys(ctx.db),
    request: {
      now: Math.ceil(ctx.now / MINUTE),
      from: Math.ceil(from / MINUTE),
      until: Math.floor(until / MINUTE),
      length: body.length,
      grid: 15,
      zone: body.zone,
      notice: 0,
      tentative: body.tentative,
      within: body.within,
      padBefore: body.padding,
      padAfter: body.padding,
      place: body.place,
      at: [],
    },
    nameOf: (id) => personByAddress(ctx.db, id)?.name ?? id,
    text: (minute) => instantText(minute * MINUTE),
  };
}

/**
 * Times that work for whoever has to be there, best first, each with its reasons; where none does, the least that would have to give, each
 * with how many times it would open. From what the asker sees and nothing else.
 */
export function findTimes(ctx: Context, key: string, body: z.infer<typeof timesBody>): Result<TimesAnswer> {
  const asked = askFor(ctx, key, body);
  if (isRefusal(asked)) return asked;
  const { people, unknown, journeys, request, nameOf, text } = asked;
  const found = findOpenings(request, people, journeys);
  const turned = { sooner: 'late', kinder: 'gap', more: 'cannot' } as const;
  const weights = { ...WEIGHTS };
  for (const wish of body.wishes) weights[turned[wish]] *= 3;
  const runs = rankRuns(request, people, found.starts, people[0]?.id ?? '', weights);
  return ok({
    runs: runs.slice(0, MOST_RUNS).map((run) => ({
      from: text(run.from),
      to: text(run.to),
      end: text(run.from + body.length),
      reasons: run.reasons.map((r) => ({ ...r, who: nameOf(r.who) })),
    })),
    unknown: [...unknown],
    gives: found.starts.length > 0 ? [] : leastToGive(request, people, journeys, nameOf, text),
    cut: found.cut || runs.length > MOST_RUNS,
  });
}

/** What opens a time where nothing fits: one fewer who must, over what is tentative, outside hours, half as long. */
function leastToGive(
  request: OpeningsRequest,
  people: readonly OpeningsPerson[],
  journeys: ReturnType<typeof allJourneys>,
  nameOf: (id: string) => string,
  text: (minute: number) => string,
): TimesAnswer['gives'] {
  const gives: TimesAnswer['gives'] = [];
  const attempt = (
    what: TimesAnswer['gives'][number]['what'],
    who: string | null,
    r: OpeningsRequest,
    list: readonly OpeningsPerson[],
  ) => {
    const { starts } = findOpenings(r, list, journeys);
    const [first] = starts;
    if (first !== undefined) gives.push({ what, who, count: starts.length, first: text(first) });
  };
  if (request.tentative === 'blocks') attempt('tentative', null, { ...request, tentative: 'counts' }, people);
  if (request.within === 'hours') attempt('hours', null, { ...request, within: 'any' }, people);
  if (request.padBefore > 0) attempt('padding', null, { ...request, padBefore: 0, padAfter: 0 }, people);
  if (request.length >= 30) attempt('half', null, { ...request, length: Math.ceil(request.length / 30) * 15 }, people);
  for (const one of people.slice(1))
    if (one.need === 'must')
      attempt(
        'without',
        nameOf(one.id),
        request,
        people.map((p) => (p === one ? { ...p, need: 'may' as const } : p)),
      );
  return gives;
}
