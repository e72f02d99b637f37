import { useQuery } from '@tanstack/react-query';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { DeskAnswer } from '@/contract/desk.ts';
import { dateText, parseDate, toWall } from '@/core/time/index.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { useFrame } from '../common/frame-context.tsx';
import { Link } from '../common/link.tsx';
import { DAY, wallsOf } from '../common/times.ts';
import { Token } from '../common/token.tsx';
import deskCss from './desk.module.css';
import { shortWhen, useDeskWords } from './desk-words.ts';

/** Occurrences of each that are shown where nothing is to decide. */
const MOST = 6;

/** Where nothing needs deciding: what comes next for each, today and tomorrow. */
export function Empty({ principals }: { principals: readonly DeskAnswer['principals'][number][] }) {
  const t = useTranslations('desk');
  return (
    <div className={deskCss.empty}>
      <p className="soft">{t('empty')}</p>
      {principals.map((p) => (
        <Coming key={p.handle} principal={p} />
      ))}
    </div>
  );
}

function Coming({ principal }: { principal: DeskAnswer['principals'][number] }) {
  const t = useTranslations('desk');
  const { style, now } = useFrame();
  const { titleOf } = useDeskWords();
  const wall = toWall(style.zone, now());
  const today = dateText(wall);
  const query = { from: today, to: dateText((parseDate(today) ?? 0) + 2 * DAY), zone: style.zone };
  const { data } = useQuery({
    queryKey: KEYS.calendar(principal.calendar, 'items', 'desk', 'two days', today),
    queryFn: () => call('listItems', { params: { calendar: principal.calendar }, query }),
    retry: false,
  });
  const coming = (data?.items ?? [])
    .filter((item) => item.kind !== 'whereabouts' && wallsOf(item, style.zone).end > wall)
    .slice(0, MOST);
  return (
    <section className={`who-${principal.colour % 6}`} aria-label={principal.name}>
      <div className="row">
        <Token name={principal.name} colour={principal.colour} />
        <Link href={`/for/${principal.handle}/calendar`}>{principal.name}</Link>
      </div>
      <ul className={deskCss.indented}>
        {coming.map((item) => (
          <li key={item.id}>
            {shortWhen(item, style)} <b>{titleOf(item)}</b>
            {item.place ? `, ${item.place}` : ''}
          </li>
        ))}
        {data && coming.length === 0 && <li className="soft">{t('emptyNothing')}</li>}
      </ul>
    </section>
  );
}
