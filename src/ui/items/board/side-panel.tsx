'use client';
import { useTranslations } from 'use-intl';
import type { BoardHead, ItemWire } from '@/contract/items/items.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { DAY } from '../../common/times.ts';
import { firstName } from '../../common/token.tsx';
import { RemovedPanel } from '../details/trail-list.tsx';
import { formOf } from '../form/form-of.ts';
import { AbsencePanel } from '../panels/absence-panel.tsx';
import { AtPanel } from '../panels/at-panel.tsx';
import { CalendarPanel } from '../panels/calendar-panel.tsx';
import { ImportPanel } from '../panels/import-panel.tsx';
import { LanesPanel } from '../panels/lanes-panel.tsx';
import { TasksPanel } from '../panels/tasks-panel.tsx';
import { OpeningsPanel } from '../times/openings-panel.tsx';
import { PreferencesPanel } from '../times/preferences-panel.tsx';
import { requestAbout } from '../times/times-request.ts';
import { useBoard } from './board-model.ts';
import type { FormPanel, SidePanelState } from './board-state.ts';

/** The panels of a calendar as a whole, and the search for another time of what stands in it. */
export function SidePanel({ panel, head }: { panel: Exclude<SidePanelState, FormPanel>; head: BoardHead }) {
  const { savedLanes, dispatch, writes, calendar, items, days } = useBoard();
  const t = useTranslations();
  const onClose = () => dispatch({ act: 'close' });
  // Today, where it is one of the days that are shown; else the day one looks at.
  const day = days.view === 'day' || !days.shows(days.today) ? days.day : days.today;
  if (panel.kind === 'times') return <Times key={panel.item.id} item={panel.item} head={head} day={day} />;
  switch (panel.panel) {
    case 'import':
      return <ImportPanel head={head} onClose={onClose} onTakeBack={writes.takeBack(calendar)} />;
    case 'lanes':
      return <LanesPanel lanes={savedLanes} board={head.calendar.key} onClose={onClose} />;
    case 'absence':
      return head.calendar.main ? <AbsencePanel head={head} onClose={onClose} /> : null;
    case 'tasks':
      return <TasksPanel head={head} day={day} onClose={onClose} />;
    case 'keeps':
      return <PreferencesPanel head={head} onClose={onClose} />;
    case 'calendar':
      return head.own ? <CalendarPanel head={head} onClose={onClose} /> : null;
    case 'removed':
      return (
        <RemovedPanel
          head={head}
          onClose={onClose}
          onBack={(answer) =>
            writes.wrote({ calendar, head }, answer, t('trail.backAgain', { title: answer.item?.title ?? '' }))
          }
        />
      );
    case 'openings':
      return <Times item={null} head={head} day={day} />;
    case 'at':
      return head.may.add ? (
        <AtPanel
          head={head}
          day={day}
          places={[...new Set(items.flatMap((item) => item.place ?? []))]}
          onClose={onClose}
          onSaved={(answer) => {
            onClose();
            const name = firstName(head.owner.name);
            writes.wrote({ calendar, head }, answer, head.own ? t('board.savedMine') : t('board.saved', { name }));
          }}
        />
      ) : null;
    default:
      return panel.panel satisfies never;
  }
}

/** Times that work: for something new, or another for an item. The one that is walked over is shown on the board. */
function Times({ item, head, day }: { item: ItemWire | null; head: BoardHead; day: number }) {
  const { dispatch, homeOf, openForm, wroteSeveral, days } = useBoard();
  const t = useTranslations();
  const { style } = useFrame();
  const into = (item && homeOf(item)?.head) ?? head;
  const request = item && requestAbout(item, style.zone);
  return (
    <OpeningsPanel
      head={into}
      day={Math.max(days.today, day)}
      onClose={() => dispatch({ act: 'close' })}
      onWalk={(walked) => {
        dispatch({ act: 'walk', walked });
        if (walked && !days.shows(walked.start)) days.go(Math.floor(walked.start / DAY) * DAY);
      }}
      onHeld={(answer) => wroteSeveral(answer, t('openings.heldNow', { count: answer.written }))}
      onMoved={(answer) => wroteSeveral(answer, t('picked.done.shift', { count: answer.written }))}
      begin={request}
      onTake={(taken) => {
        const savedDraft = formOf(taken, request?.item ?? null);
        const fresh = { kind: 'new', start: savedDraft.start, end: savedDraft.end } as const;
        openForm({ draft: item ? { kind: 'change', item } : fresh, head: into, savedDraft });
      }}
    />
  );
}
