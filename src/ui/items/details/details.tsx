'use client';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useQuery } from '@tanstack/react-query';
import { type ReactNode, useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { BoardHead, ItemWire, WrittenAnswer } from '@/contract/items/items.ts';
import type { SeveralAnswer } from '@/contract/items/several.ts';
import type { Visibility } from '@/core/calendar/index.ts';
import { parseInstant, toWall } from '@/core/time/index.ts';
import boardsCss from '../../common/boards.module.css';
import { useActing } from '../../common/fetched/acting.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { RichText } from '../../common/fields/rich-text.tsx';
import { useFrame } from '../../common/frame-context.tsx';
import pageCss from '../../common/page.module.css';
import { RequestMore } from '../../common/requests/request-more.tsx';
import { clock, dayMonth, dayName, dayOf, whenText, zonePlace } from '../../common/times.ts';
import { firstName } from '../../common/token.tsx';
import { MeetingCard } from '../../meetings/meeting-card.tsx';
import { useRepeatWords } from '../form/repeat-kinds.ts';
import { VisibilityChoice } from '../form/visibility-choice.tsx';
import { CopyItem } from './copy-item.tsx';
import { CopyOnDays } from './copy-on-days.tsx';
import { FilesCard } from './files-card.tsx';
import { Fixed } from './fixed.tsx';
import { HoldCard } from './hold-card.tsx';
import { ItemTasks } from './item-tasks.tsx';
import { Looking } from './looking.tsx';
import { MoveItem } from './move-item.tsx';
import { PanelHead } from './panel-head.tsx';
import { Remind } from './remind.tsx';
import { SeriesApart } from './series-apart.tsx';
import { TrailList } from './trail-list.tsx';
import { WhoSees } from './who-sees.tsx';

/** The selected item, with what the viewer sees of it and may do with it. Nothing shown here can be typed into. */
export function Details(props: {
  item: ItemWire;
  head: BoardHead;
  onClose: () => void;
  onEdit: (item: ItemWire) => void;
  onRemove: (scope: 'one' | 'later' | 'all') => void;
  onVisibility: (visibility: Visibility, scope: 'one' | 'all') => void;
  onForwardRemoval: () => void;
  /** Something of its series was set right. */
  onWrote: (answer: WrittenAnswer) => void;
  /** Others like it were put on other days. */
  onCopied: (answer: SeveralAnswer) => void;
  /** One of several times that were held was fixed. */
  onFixed: (answer: SeveralAnswer) => void;
  /** Something of it alone was set otherwise. */
  onWroteHere?: (answer: WrittenAnswer) => void;
  /** Another time is looked for. */
  onOpenings?: (item: ItemWire) => void;
}) {
  const { head, onClose, onEdit, onRemove, onVisibility, onForwardRemoval, onOpenings } = props;
  // What is long comes with the item itself; until it is here nothing of it can be changed.
  const isLong = props.item.atItem !== undefined && !head.as;
  const whole = useQuery({
    queryKey: KEYS.calendar(head.calendar.key, 'item', props.item.id, props.item.version ?? 0),
    queryFn: () => call('readItem', { params: { item: props.item.id } }),
    enabled: isLong,
    retry: 1,
    meta: { item: props.item.id },
  });
  const item = isLong && whole.data ? whole.data : props.item;
  const waits = isLong && !whole.data;
  const t = useTranslations();
  const { style } = useFrame();
  const name = head.owner.name;
  const series = item.asSet?.series === true;
  const open = item.title !== undefined;
  const repeatWords = useRepeatWords();
  const [onDays, setOnDays] = useState(false);
  const reminds = item.visibility !== undefined && head.may.run;
  // Who is asked stands with what may be done about it, for whoever runs the meeting.
  const runs = item.may?.change === true && item.calledHere === true && !item.mayAnswer && !head.as;
  return (
    <aside className={boardsCss.panel} aria-label={t('panel.in', { name: firstName(name) })}>
      <PanelHead head={head} onClose={onClose} />
      {!head.as && item.may?.change && <Looking item={item.id} types={false} />}
      <h2>{item.withheld ? t('board.private') : (item.title ?? t('board.busyWord', { shows: item.shows }))}</h2>
      <dl className={pageCss.facts}>
        <Fact name={t('panel.when')}>
          {whenText(item, style)}
          <OtherZone item={item} calendarZone={head.calendar.zone} />
        </Fact>
        {item.place && <Fact name={t('panel.where')}>{item.place}</Fact>}
        {item.organiser && item.attendees && item.attendees.length > 0 && !runs && (
          <Fact name={t('panel.organiser')}>{item.organiser.name ?? item.organiser.address}</Fact>
        )}
        {item.attendees && item.attendees.length > 0 && !runs && (
          <Fact name={t('panel.with')}>
            {item.attendees.map((a) => (
              <span key={a.address} className="block">
                {a.name ?? a.address}{' '}
                <span className={a.answer === 'declined' ? 'small wrong' : 'small soft'}>
                  {t('panel.answers', { answer: a.answer })}
                </span>
              </span>
            ))}
          </Fact>
        )}
        <Fact name={t('panel.status')}>
          {t(`statuses.${item.shows}`)}
          {item.kind && item.kind !== 'meeting' ? ` · ${t(`kinds.${item.kind}`)}` : ''}
        </Fact>
        {item.repeats && (
          <Fact name={t('panel.repeats')}>{repeatWords(item.repeats.rule, item.repeats.added.length)}</Fact>
        )}
        {item.importance && item.importance !== 'normal' && (
          <Fact name={t('panel.importance')}>{t(`importances.${item.importance}`)}</Fact>
        )}
        {item.link && (
          <Fact name={t('panel.link')}>
            <a href={item.link} target="_blank" rel="noreferrer noopener">
              {item.link}
            </a>
          </Fact>
        )}
        {item.categories && item.categories.length > 0 && (
          <Fact name={t('panel.categories')}>{item.categories.join(', ')}</Fact>
        )}
        {item.notes && (
          <Fact name={t('panel.notes')}>
            <RichText text={item.notes} />
          </Fact>
        )}
      </dl>
      {!head.as && item.may?.change && item.asSet?.hold && <HoldCard item={item} onFixed={props.onFixed} />}
      {!head.as && <MeetingCard item={item} head={head} />}
      {!head.as && reminds && <Remind item={item.id} />}
      {waits && (
        <p className="small soft" role="status">
          {t('panel.atItem')}
        </p>
      )}
      {item.visibility && item.may?.change && (
        <VisibilityChoice
          value={item.visibility}
          series={series && item.repeats != null}
          onChange={onVisibility}
          warn={!head.may.seePrivate}
          name={name}
        />
      )}
      {item.visibility && !item.may?.change && (
        <p className="small soft">
          {t('panel.visibility')}: {t(`visibilities.${item.visibility}`)}, {t(`visibilityHelp.${item.visibility}`)}
        </p>
      )}
      {head.may.share && item.visibility !== undefined && (
        <WhoSees id={item.id} day={dayOf(item, style.zone)} head={head} />
      )}
      {item.briefing && (
        <div className={`${pageCss.card} ${pageCss.briefing}`}>
          <h3>
            {t('panel.briefing')}{' '}
            <span className="soft small">{t('panel.briefingFor', { name: firstName(name) })}</span>
          </h3>
          <p className="lines">{item.briefing}</p>
        </div>
      )}
      {item.withheld && <p className="soft">{t('panel.withheld')}</p>}
      {!open && !item.withheld && <p className="soft">{t('panel.busy', { name: firstName(name) })}</p>}
      {!head.as && 'notes' in item && <ItemTasks item={item} head={head} />}
      {!head.as && item.visibility !== undefined && <FilesCard item={item} calendar={head.calendar.key} />}
      {!head.as && <SeriesApart item={item} calendar={head.calendar.key} onWrote={props.onWrote} />}
      {!head.as && reminds && <TrailList item={item.id} calendar={head.calendar.key} />}
      <div className={boardsCss.foot}>
        {/* What others call was made by them. */}
        {!(item.organiser && !item.calledHere) && <Made item={item} />}
        {item.mayRemove && <p className="small soft">{t('panel.removeBelow')}</p>}
        {open && !item.may?.change && (
          <p className="small soft">
            {t(item.maySuggest ? 'panel.forwardOnly' : 'panel.readOnly', { name: firstName(name) })}
          </p>
        )}
        <div className="row">
          {props.onWroteHere && item.asSet && item.may?.change && !item.allDay && !head.as && (
            <Fixed item={item} onWrote={props.onWroteHere} />
          )}
          <CopyItem item={item} head={head} />
          {!head.own && !head.as && !item.withheld && !item.may?.change && (
            <RequestMore handle={head.owner.handle} name={name} of={head.calendar} has={head.rights} />
          )}
          {head.may.add && open && 'notes' in item && !head.as && (
            <Button variant="outlined" aria-expanded={onDays} onClick={() => setOnDays(!onDays)}>
              {t('picked.otherDays')}
            </Button>
          )}
          {(item.may?.remove || item.mayRemove) && (
            <Button variant="outlined" onClick={() => onRemove('one')}>
              {series ? t('panel.removeOne') : t('panel.remove')}
            </Button>
          )}
          {item.may?.remove && series && item.repeats && !item.mayAnswer && (
            <Button variant="outlined" onClick={() => onRemove('later')}>
              {t('panel.removeLater')}
            </Button>
          )}
          {item.may?.remove && series && item.repeats && (
            <Button variant="outlined" onClick={() => onRemove('all')}>
              {t('panel.removeAll')}
            </Button>
          )}
        </div>
        {onDays && <CopyOnDays item={item} onCopied={props.onCopied} />}
        {item.may?.move && !head.as && <MoveItem item={item} head={head} onMoved={onClose} />}
        {item.maySuggest && item.attendees && item.organiser && !item.calledHere && (
          <ForwardAnswer item={item} head={head} onDone={onForwardRemoval} />
        )}
        {item.maySuggest && <ForwardRemoval item={item} head={head} onDone={onForwardRemoval} />}
      </div>
      {/* Where one goes on stays where it is, whatever else comes to stand above it. */}
      {(item.may?.change || item.maySuggest) && (
        <div className={`row ${boardsCss['save-row']}`}>
          <Button variant="contained" disabled={waits} onClick={() => onEdit(item)}>
            {t(item.maySuggest ? 'panel.forward' : 'panel.edit')}
          </Button>
          {onOpenings && item.may?.change && !item.allDay && !head.as && (
            <Button variant="outlined" onClick={() => onOpenings(item)}>
              {t('openings.another')}
            </Button>
          )}
        </div>
      )}
    </aside>
  );
}

/** Puts an answer to an invitation forward: three presses, each with its own word. */
function ForwardAnswer({ item, head, onDone }: { item: ItemWire; head: BoardHead; onDone: () => void }) {
  const t = useTranslations();
  const { attempt, busy, refused } = useActing();
  const send = async (answer: 'accepted' | 'tentative' | 'declined') => {
    await attempt(async () => {
      const params = { calendar: head.calendar.key };
      await call('putForward', { params, body: { kind: 'answer', item: item.id, answer } });
      onDone();
    });
  };
  return (
    <section className="gap-2 above-4 stack" aria-label={t('panel.forwardAnswer')}>
      <p className="small soft">{t('panel.forwardAnswer')}</p>
      {refused && <p className="wrong">{refused}</p>}
      <div className="row">
        {(['accepted', 'tentative', 'declined'] as const).map((answer) => (
          <Button key={answer} variant="outlined" loading={busy} onClick={() => void send(answer)}>
            {t(`meetings.answer.${answer}`)}
          </Button>
        ))}
      </div>
    </section>
  );
}

/** Puts the removal of an item forward, with the reason why. */
function ForwardRemoval({ item, head, onDone }: { item: ItemWire; head: BoardHead; onDone: () => void }) {
  const t = useTranslations();
  const [open, setOpen] = useState(false);
  const [why, setWhy] = useState('');
  const { attempt, busy, refused } = useActing();
  const send = async () => {
    await attempt(async () => {
      const params = { calendar: head.calendar.key };
      await call('putForward', { params, body: { kind: 'remove', item: item.id, why } });
      onDone();
    });
  };
  if (!open)
    return (
      <Button variant="text" onClick={() => setOpen(true)} className="flush above-4 own-width">
        {t('panel.forwardRemoval')}
      </Button>
    );
  const name = firstName(head.owner.name);
  return (
    <div className={`${pageCss.card} above-4 stack`}>
      {refused && <p className="wrong">{refused}</p>}
      <TextField
        label={t('form.why')}
        value={why}
        autoFocus
        onChange={(e) => setWhy(e.target.value)}
        slotProps={{ inputLabel: { shrink: true }, htmlInput: { maxLength: 1000 } }}
        helperText={t('form.whyHelp', { name })}
      />
      <div className="row">
        <Button variant="contained" loading={busy} onClick={() => void send()}>
          {t('panel.forwardRemovalTo', { name })}
        </Button>
        <Button variant="outlined" onClick={() => setOpen(false)}>
          {t('form.cancel')}
        </Button>
      </div>
    </div>
  );
}

function Fact({ name, children }: { name: string; children: ReactNode }) {
  return (
    <>
      <dt>{name}</dt>
      <dd>{children}</dd>
    </>
  );
}

/** The same hour on the clock of the calendar's or the item's own zone, where that differs. */
function OtherZone({ item, calendarZone }: { item: ItemWire; calendarZone: string }) {
  const t = useTranslations('panel');
  const { style } = useFrame();
  if (item.allDay) return null;
  const instant = parseInstant(item.start) ?? 0;
  const here = toWall(style.zone, instant);
  const end = parseInstant(item.end) ?? 0;
  const ends = item.asSet?.endZone ?? null;
  const zones = [...new Set([item.asSet?.zone, calendarZone])].filter(
    (z): z is string => z !== undefined && z !== 'UTC' && toWall(z, instant) !== here,
  );
  return (
    <>
      {zones.map((zone) => (
        <span key={zone} className="small soft block">
          {t('elsewhere', { time: clock(toWall(zone, instant), style.hours), place: zonePlace(zone) })}
        </span>
      ))}
      {ends && (
        <span className="small soft block">
          {t('endsElsewhere', {
            time: `${dayName(toWall(ends, end))}, ${clock(toWall(ends, end), style.hours)}`,
            place: zonePlace(ends),
          })}
        </span>
      )}
    </>
  );
}

function Made({ item }: { item: ItemWire }) {
  const t = useTranslations('panel');
  const { style } = useFrame();
  const line = (authored: { at: string; actor: string; principal: string }) => {
    const who =
      authored.actor === authored.principal
        ? authored.actor
        : t('madeFor', { actor: authored.actor, principal: authored.principal });
    return `${who}, ${dayMonth(toWall(style.zone, parseInstant(authored.at) ?? 0))}`;
  };
  if (item.asSet) {
    const { created, changed } = item.asSet;
    return (
      <p className="small soft">
        {t('made')} {line(created)}
        {changed.at !== created.at && (
          <>
            <br />
            {t('changed')}: {line(changed)}
          </>
        )}
      </p>
    );
  }
  return item.createdBy ? (
    <p className="small soft">
      {t('made')} {item.createdBy.name ?? item.createdBy.address}
    </p>
  ) : null;
}
