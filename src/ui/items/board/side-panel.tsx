'use client';
import type { ComponentProps } from 'react';
import { useTranslations } from 'use-intl';
import type { BoardHead, WrittenAnswer } from '@/contract/items/items.ts';
import type { SeveralAnswer } from '@/contract/items/several.ts';
import type { Lane } from '@/contract/lanes.ts';
import { firstName } from '../../common/token.tsx';
import { RemovedPanel } from '../details/trail-list.tsx';
import { formOf } from '../form/form-of.ts';
import type { FormDraft } from '../form/item-values.ts';
import { AtPanel } from '../panels/at-panel.tsx';
import { CalendarPanel } from '../panels/calendar-panel.tsx';
import { ImportPanel } from '../panels/import-panel.tsx';
import { LanesPanel } from '../panels/lanes-panel.tsx';
import { OpeningsPanel } from '../times/openings-panel.tsx';
import { PreferencesPanel } from '../times/preferences-panel.tsx';
import type { TimesAsked } from '../times/times-asked.ts';
import type { Walked } from '../views/moving.ts';

/** What can stand beside a board where it is neither an item nor its form. */
export type SidePanelName = 'import' | 'lanes' | 'at' | 'removed' | 'calendar' | 'openings' | 'keeps';

/** The panels of a calendar as a whole. `onWrote` is told what was written with its words, `onBegin` what a new item begins with. */
export function SidePanel(props: {
  what: SidePanelName;
  head: BoardHead;
  kept: readonly Lane[];
  /** The day one looks at, and today. */
  day: number;
  today: number;
  places: readonly string[];
  /** What a time is looked for, where it stands already. */
  asked: Partial<TimesAsked> | null;
  onClose: () => void;
  onTakeBack: ComponentProps<typeof ImportPanel>['onTakeBack'];
  onWrote: (answer: WrittenAnswer, text: string) => void;
  onBegin: (data: FormDraft) => void;
  onWalk: (time: Walked | null) => void;
  /** Several were written at once. */
  onWroteSeveral: (answer: SeveralAnswer, text: string) => void;
}) {
  const { what, head, kept, day, today, places, asked, onClose, onTakeBack, onWrote, onBegin, onWalk, onWroteSeveral } =
    props;
  const t = useTranslations();
  switch (what) {
    case 'import':
      return <ImportPanel head={head} onClose={onClose} onTakeBack={onTakeBack} />;
    case 'lanes':
      return <LanesPanel lanes={kept} board={head.calendar.key} onClose={onClose} />;
    case 'keeps':
      return <PreferencesPanel head={head} onClose={onClose} />;
    case 'calendar':
      return head.own ? <CalendarPanel head={head} onClose={onClose} /> : null;
    case 'removed':
      return (
        <RemovedPanel
          head={head}
          onClose={onClose}
          onBack={(answer) => onWrote(answer, t('trail.backAgain', { title: answer.item?.title ?? '' }))}
        />
      );
    case 'openings':
      return (
        <OpeningsPanel
          head={head}
          day={Math.max(today, day)}
          onClose={onClose}
          onWalk={onWalk}
          onHeld={(answer) => onWroteSeveral(answer, t('openings.heldNow', { count: answer.written }))}
          onMoved={(answer) => onWroteSeveral(answer, t('picked.done.shift', { count: answer.written }))}
          begin={asked}
          onTake={(taken) => onBegin(formOf(taken, asked?.item ?? null))}
        />
      );
    case 'at':
      return head.may.add ? (
        <AtPanel
          head={head}
          day={day}
          places={places}
          onClose={onClose}
          onSaved={(answer) => {
            onClose();
            onWrote(answer, head.own ? t('board.savedMine') : t('board.saved', { name: firstName(head.owner.name) }));
          }}
        />
      ) : null;
    default:
      return what satisfies never;
  }
}
