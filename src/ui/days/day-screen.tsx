'use client';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useSearchParams } from 'next/navigation';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { DayPart, PersonDay } from '@/contract/days.ts';
import type { ItemWire } from '@/contract/items/items.ts';
import { dateText, parseDate, parseInstant, toWall } from '@/core/time/index.ts';
import { useDueWords } from '../common/due-words.ts';
import { useActingWithToast } from '../common/fetched/acting.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { QueryState } from '../common/fetched/query-state.tsx';
import { RichText } from '../common/fields/rich-text.tsx';
import { useFrame } from '../common/frame-context.tsx';
import { Link } from '../common/link.tsx';
import pageCss from '../common/page.module.css';
import { clock, DAY, fullDay, wallsOf } from '../common/times.ts';
import { useDeskWords } from '../desk/desk-words.ts';
import trailCss from '../trail/trail.module.css';
import { TrailEntry } from '../trail/trail-entry.tsx';
import daysCss from './days.module.css';
import { LettersOfDay } from './letters-of-day.tsx';

/** What was done in one's name that stands here; the rest is in the Trail. */
const MOST_DONE = 8;

/** The morning: today with its briefings and ways, and what changed since yesterday. The evening: what was done, and what is open for tomorrow. */
export function DayScreen({ who }: { who: string }) {
  const t = useTranslations('days');
  const { frame, style, toast } = useFrame();
  const client = useQueryClient();
  const { attempt } = useActingWithToast();
  const search = useSearchParams();
  const of: DayPart = search.get('of') === 'evening' ? 'evening' : 'morning';
  const whom = who === frame.me.handle ? 'all' : who;
  const query = useQuery({
    queryKey: KEYS.day(of, whom),
    queryFn: () => call('readDay', { query: { of, for: whom } }),
    retry: false,
  });
  const { data } = query;
  const undo = (key: string) =>
    void attempt(async () => {
      await call('undo', { body: { undo: key } });
      toast({ text: t('undone') });
      await client.invalidateQueries({ queryKey: KEYS.days });
    });
  return (
    <div className={pageCss.page}>
      <div className={daysCss.head}>
        <h1>{data ? fullDay((parseDate(data.date) ?? 0) - (of === 'evening' ? DAY : 0)) : t(`${of}.title`)}</h1>
        <nav className={daysCss.which} aria-label={t('which')}>
          {(['morning', 'evening'] as const).map((part) => (
            <Link
              key={part}
              href={`/for/${who}/day?of=${part}`}
              replace
              aria-current={part === of ? 'true' : undefined}
            >
              {t(`${part}.title`)}
            </Link>
          ))}
        </nav>
      </div>
      {!data && <QueryState query={query} />}
      {data?.people.map((one) => (
        <section key={one.handle} className={`${daysCss.person} who-${one.colour % 6}`} aria-label={one.name}>
          {data.people.length > 1 && <h2>{one.own ? t('mine') : one.name}</h2>}
          {of === 'morning' ? (
            <Morning one={one} onUndo={undo} />
          ) : (
            <Evening one={one} tomorrow={data.date} onUndo={undo} />
          )}
          {one.cut && <p className="small soft">{t('more')}</p>}
        </section>
      ))}
      {data?.digest?.digest && (
        <p className={`small soft ${trailCss.chain}`}>
          {t('digest', {
            at: clock(toWall(style.zone, parseInstant(data.digest.at) ?? 0), style.hours),
            digest: data.digest.digest,
          })}{' '}
          {t('digestHelp')}
        </p>
      )}
      {whom === 'all' && frame.me.inside && <LettersOfDay />}
    </div>
  );
}

function Morning({ one, onUndo }: { one: PersonDay; onUndo: (key: string) => void }) {
  const t = useTranslations('days');
  return (
    <>
      <Items one={one} />
      <Tasks one={one} />
      {one.changes.length > 0 && (
        <>
          <h3>{t('changes')}</h3>
          <Entries entries={one.changes} onUndo={onUndo} />
        </>
      )}
    </>
  );
}

/** What is to be done on the day, and what is overdue. */
function Tasks({ one }: { one: PersonDay }) {
  const t = useTranslations('days');
  const words = useDueWords();
  if (one.tasks.length === 0) return null;
  return (
    <>
      <h3>{t('tasks')}</h3>
      <ul className={daysCss.list}>
        {one.tasks.map((task) => (
          <li key={task.id} className={daysCss.item}>
            <span className="soft">{words(task)}</span>
            <span>
              <Link href={`/for/${one.handle}/tasks?${new URLSearchParams({ list: task.list, task: task.id })}`}>
                {task.title}
              </Link>{' '}
              {task.belongsTo && <span className="soft">{task.belongsTo}</span>}
            </span>
          </li>
        ))}
      </ul>
    </>
  );
}

function Evening(props: { one: PersonDay; tomorrow: string; onUndo: (key: string) => void }) {
  const { one, tomorrow, onUndo } = props;
  const t = useTranslations('days');
  const { words } = useDeskWords();
  const { style, now } = useFrame();
  const hours = (minutes: number) => Math.round(minutes / 6) / 10;
  const today = dateText(Math.floor(toWall(style.zone, now()) / DAY) * DAY);
  return (
    <>
      {one.own && (
        <>
          <h3>{t('done')}</h3>
          {one.done.length === 0 ? (
            <p className="soft">{t('doneNone')}</p>
          ) : (
            <Entries entries={one.done.slice(0, MOST_DONE)} forOne onUndo={onUndo} />
          )}
        </>
      )}
      {one.done.length > MOST_DONE && (
        <Link href={`/for/${one.handle}/trail?of=name&from=${today}`}>{t('allDone')}</Link>
      )}
      <h3>{t('open')}</h3>
      {one.open.length === 0 ? (
        <p className="soft">{t('openNone')}</p>
      ) : (
        <ul className={daysCss.list}>
          {one.open.map((row) => {
            const { title, sub, wrong, why } = words(row);
            return (
              <li key={row.key} className={`${daysCss.item} one-column`}>
                <span>
                  <b>{title}</b> <span className="soft">{sub}</span> <span className="wrong">{wrong}</span> {why}
                </span>
              </li>
            );
          })}
        </ul>
      )}
      {one.open.length > 0 && (
        <Link href={`/for/${one.handle}/desk${one.own ? `?only=${one.handle}` : ''}`}>{t('toDesk')}</Link>
      )}
      <h3>{t('tomorrow', { day: fullDay(parseDate(tomorrow) ?? 0) })}</h3>
      {one.empty && (
        <p className="wrong">{t('empty', { booked: hours(one.empty.booked), usual: hours(one.empty.usual) })}</p>
      )}
      <Items one={one} />
      <Tasks one={one} />
    </>
  );
}

function Entries(props: { entries: PersonDay['done']; forOne?: boolean; onUndo: (key: string) => void }) {
  const { entries, forOne = false, onUndo } = props;
  return (
    <ol className={trailCss.list}>
      {entries.map((entry) => (
        <TrailEntry key={entry.key} entry={entry} forOne={forOne} onUndo={() => onUndo(entry.key)} />
      ))}
    </ol>
  );
}

/** What happens, in order, with who comes, the ways between and the briefings. */
function Items({ one }: { one: PersonDay }) {
  const t = useTranslations('days');
  const { titleOf } = useDeskWords();
  const { style } = useFrame();
  const ways = new Map(one.ways.map(({ to, minutes }) => [to, minutes]));
  const when = (item: ItemWire): string => {
    if (item.allDay) return t('allDay');
    const { start, end } = wallsOf(item, style.zone);
    return `${clock(start, style.hours)}–${clock(end, style.hours)}`;
  };
  if (one.items.length === 0) return <p className="soft">{t('free')}</p>;
  return (
    <ul className={daysCss.list}>
      {one.items.map((item) => {
        const people = item.attendees ?? [];
        const named = people.slice(0, 8).map(({ name, address, answer }) => {
          const said = answer === 'accepted' ? '' : ` (${t(`answers.${answer}`)})`;
          return `${name ?? address}${said}`;
        });
        return (
          <li key={item.id} className={daysCss.item}>
            {ways.has(item.id) && <span className={daysCss.way}>{t('way', { minutes: ways.get(item.id) ?? 0 })}</span>}
            <span className="soft">{when(item)}</span>
            <span>
              <b>{titleOf(item)}</b>
              {item.place ? `, ${item.place}` : ''}
              {named.length > 0 && (
                <span className="small soft block">
                  {t('with', { people: named.join(', '), more: people.length - named.length })}
                </span>
              )}
              {item.briefing && (
                <span className={`${daysCss.briefing} block`}>
                  <RichText text={item.briefing} />
                </span>
              )}
            </span>
          </li>
        );
      })}
    </ul>
  );
}
