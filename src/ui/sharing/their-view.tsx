'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useSearchParams } from 'next/navigation';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { ItemWire } from '@/contract/items/items.ts';
import type { AudienceWire, PreviewAnswer } from '@/contract/sharing/sharing.ts';
import type { Visibility } from '@/core/calendar/index.ts';
import type { CollectionKind } from '@/core/collection/index.ts';
import { useActing } from '../common/fetched/acting.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { said } from '../common/fetched/refusal.ts';
import { useFrame } from '../common/frame-context.tsx';
import { Link } from '../common/link.tsx';
import pageCss from '../common/page.module.css';
import { DAY, weekTitle, whenText } from '../common/times.ts';
import { VisibilityChoice } from '../items/form/visibility-choice.tsx';
import { audienceParam } from './audience-param.ts';
import { MiniWeek } from './mini-week.tsx';
import { ExplainAccess } from './review/explain-access.tsx';
import { History } from './review/history.tsx';
import sightlinesCss from './sightlines.module.css';
import { TheirList } from './their-list.tsx';

/** This week exactly as an audience gets it, as chosen and as before; the owner opens an item to set who sees it. */
export function TheirView(props: {
  calendar: string;
  audience: AudienceWire;
  name: string | null;
  link: boolean;
  own: boolean;
  owner: string;
  main: boolean;
  kind: CollectionKind;
  /** The one who looks is an administrator alone, who sees no items here. */
  closed: boolean;
  answer: PreviewAnswer | undefined;
  failed: boolean;
  dirty: boolean;
  week: number;
  onWeek: (week: number) => void;
}) {
  const { calendar, audience, name, link, own, owner, main, kind, closed, answer, failed, dirty, week, onWeek } = props;
  const { principal, frame } = useFrame();
  const known = audience.kind !== 'address' && audience.kind !== 'newLink';
  const here = principal?.handle ?? frame.me.handle;
  const t = useTranslations();
  const [shown, setShown] = useState<'after' | 'before' | 'both'>('after');
  // A door from an item leads to why this audience sees it.
  const openItem = useSearchParams().get('item');
  const [picked, setPicked] = useState(openItem);
  const which = dirty ? shown : 'after';
  const weeks =
    answer &&
    (which === 'both' ? [answer.itemsBefore, answer.items] : [which === 'before' ? answer.itemsBefore : answer.items]);
  return (
    <div className={sightlinesCss.col}>
      <div className="row spread below-3 as-tall">
        <h3>
          {link
            ? t('lines.viewLink')
            : name
              ? t(kind === 'calendar' ? 'lines.view' : 'lines.viewTasks', { name })
              : t(kind === 'calendar' ? 'lines.viewEveryone' : 'lines.viewTasksEveryone')}
        </h3>
        {dirty && (
          <span className="row gap-0">
            {(['after', 'before', 'both'] as const).map((w) => (
              <Button key={w} variant="text" className="tiny" aria-pressed={which === w} onClick={() => setShown(w)}>
                {t(w === 'both' ? 'lines.sideBySide' : `lines.${w}`)}
              </Button>
            ))}
          </span>
        )}
      </div>
      {/* A week of two months has a long name: what goes on and back stays beside it. */}
      {kind === 'calendar' && (
        <div className="row small below-2 spread nowrap">
          <Button
            variant="text"
            className="tiny"
            aria-label={t('lines.weekBefore')}
            onClick={() => onWeek(week - 7 * DAY)}
          >
            ←
          </Button>
          <span className="soft">{weekTitle(week)}</span>
          <Button
            variant="text"
            className="tiny"
            aria-label={t('lines.weekAfter')}
            onClick={() => onWeek(week + 7 * DAY)}
          >
            →
          </Button>
        </div>
      )}
      {failed && <Alert severity="error">{t('lines.failed')}</Alert>}
      {closed && <p className={pageCss.card}>{t('lines.noViewAdministrator')}</p>}
      {!closed && kind !== 'calendar' && answer && <TheirList kind={kind} answer={answer} which={which} />}
      {!closed &&
        kind === 'calendar' &&
        weeks?.map((items, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: the first is before, the second after
          <div key={i}>
            {weeks.length > 1 && <p className="small soft">{i === 0 ? t('lines.before') : t('lines.after')}</p>}
            <MiniWeek
              items={items}
              first={week}
              low={weeks.length > 1}
              selected={picked}
              onPick={own ? (item) => setPicked(item.id) : null}
            />
            <p className="small soft above-3 below-3" role="status">
              {t('lines.made', { count: items.length, withheld: items.filter((item) => item.withheld).length })}
            </p>
          </div>
        ))}
      {known && !closed && kind === 'calendar' && (
        <p className="small">
          <Link
            href={`/for/${here}/calendar?${new URLSearchParams({
              as: audienceParam(audience),
              ...(owner === here ? {} : { of: owner }),
              ...(main ? {} : { c: calendar }),
            })}`}
          >
            {t('lines.openBoards')}
          </Link>
        </p>
      )}
      {own && picked && <ItemVisibility key={picked} id={picked} calendar={calendar} onMoved={setPicked} />}
      {own && picked && known && (
        <ExplainAccess key={`ask ${picked}`} calendar={calendar} audience={audience} item={picked} />
      )}
      {own && !picked && !closed && kind === 'calendar' && <p className="small soft">{t('lines.item')}</p>}
      <History calendar={calendar} audience={audience} />
    </div>
  );
}

function ItemVisibility({
  id,
  calendar,
  onMoved,
}: {
  id: string;
  calendar: string;
  onMoved: (id: string | null) => void;
}) {
  const t = useTranslations();
  const { style, toast } = useFrame();
  const client = useQueryClient();
  const { attempt, refused } = useActing();
  const { data: item, error } = useQuery({
    queryKey: KEYS.calendar(calendar, 'item', id),
    queryFn: () => call('readItem', { params: { item: id } }) as Promise<ItemWire>,
    retry: false,
  });
  if (error) return <Alert severity="error">{said(error, t('common.unreachable')).sentence}</Alert>;
  if (!item?.visibility) return null;
  const change = async (visibility: Visibility, scope: 'one' | 'all') => {
    await attempt(async () => {
      const answer = await call('changeItem', {
        params: { item: id },
        body: { version: item.version ?? 0, scope: item.repeats ? scope : 'one', fields: { visibility } },
      });
      toast({
        text: t(item.repeats && scope === 'all' ? 'board.savedSeriesMine' : 'board.savedMine'),
        undo: () => {
          void call('undo', { body: { undo: answer.undo } }).finally(() =>
            client.invalidateQueries({ queryKey: KEYS.calendar(calendar) }),
          );
        },
      });
    });
    await client.invalidateQueries({ queryKey: KEYS.calendar(calendar) });
  };
  return (
    <div className={pageCss.card}>
      <div className="row spread">
        <b>{item.title}</b>
        <Button variant="text" className="low" onClick={() => onMoved(null)}>
          {t('panel.close')}
        </Button>
      </div>
      <p className="small soft below-4">
        {whenText(item, style)}
        {item.place ? ` · ${item.place}` : ''}
      </p>
      {refused && <Alert severity="error">{refused}</Alert>}
      <VisibilityChoice
        value={item.visibility}
        series={item.repeats != null}
        onChange={(v, scope) => void change(v, scope)}
        warn={false}
        name=""
      />
      <p className="small soft">{t('panel.privateAtOnce')}</p>
    </div>
  );
}
