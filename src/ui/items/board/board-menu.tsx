'use client';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { useSearchParams } from 'next/navigation';
import { flushSync } from 'react-dom';
import { useTranslations } from 'use-intl';
import type { BoardHead } from '@/contract/items/items.ts';
import { dateText } from '@/core/time/index.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { Link } from '../../common/link.tsx';
import { firstName } from '../../common/token.tsx';
import boardCss from './board.module.css';
import { useBoard } from './board-model.ts';
import type { SidePanelName } from './board-state.ts';
import { Legend } from './legend.tsx';
import { sightlinesDoor } from './sightlines-door.ts';

/** The acts on a calendar as a whole, opened from its board's head. */
export function BoardMenu(props: {
  head: BoardHead;
  anchor: HTMLElement;
  /** Which acts have no room in the head, and are here. */
  hidden: Readonly<Record<'openings' | 'lanes' | 'suggest' | 'back', boolean>>;
  /** Lays several lanes over each other, or beside each other again; `null` where there are none. */
  over: (() => void) | null;
  onClose: () => void;
}) {
  const { head, anchor, hidden, over, onClose } = props;
  const { days, lanes, dispatch, begin, seek } = useBoard();
  const { frame, principal } = useFrame();
  const show = (panel: SidePanelName) => () => {
    onClose();
    dispatch({ act: 'panel', panel });
  };
  const t = useTranslations();
  const search = useSearchParams();
  const addressOf = (other: BoardHead['others'][number]): string => {
    const next = new URLSearchParams(search);
    if (other.main) next.delete('c');
    else next.set('c', other.key);
    return `?${next}`;
  };
  // To whoever has a hand in it, and not to those who only look on, its file is shown even where they may not have it.
  const asFile = head.may.import || head.own || head.may.add;
  return (
    <Menu anchorEl={anchor} open onClose={onClose} slotProps={{ paper: { sx: { border: '1px solid var(--line)' } } }}>
      {hidden.suggest && head.may.suggest && (
        <MenuItem
          onClick={() => {
            // Gone before the form comes: as it goes, the menu takes the focus back to where it was opened from.
            flushSync(onClose);
            begin(head);
          }}
        >
          {t('board.forwardNew')}
        </MenuItem>
      )}
      {hidden.back && (
        <MenuItem component={Link} href={`/for/${frame.me.handle}/calendar`} onClick={onClose}>
          {t('board.back')}
        </MenuItem>
      )}
      <MenuItem
        onClick={() => {
          onClose();
          dispatch({ act: 'settle', item: null });
          seek({ words: '', kind: null });
        }}
      >
        {t('search.open')}
      </MenuItem>
      {days.narrow &&
        head.others.map((other) => (
          <MenuItem key={other.key} component={Link} href={addressOf(other)} onClick={onClose}>
            {t('board.calendar')}: {other.main ? t('board.mainCalendar') : other.name}
          </MenuItem>
        ))}
      {hidden.openings && head.may.add && <MenuItem onClick={show('openings')}>{t('openings.title')}</MenuItem>}
      {hidden.lanes && <MenuItem onClick={show('lanes')}>{t('lanes.open', { count: lanes.length - 1 })}</MenuItem>}
      {over && (
        <MenuItem
          selected={days.over}
          onClick={() => {
            onClose();
            over();
          }}
        >
          {t('lanes.over')}
        </MenuItem>
      )}
      {head.may.share && (
        <MenuItem
          component={Link}
          href={sightlinesDoor(head, frame.me.handle, principal?.handle ?? null)}
          onClick={onClose}
        >
          {t('board.sightlinesDoor')}
        </MenuItem>
      )}
      {asFile && !head.may.import && (
        <MenuItem disabled className={boardCss.note}>
          {t('errors.mayNotImport', { name: firstName(head.owner.name) })}
        </MenuItem>
      )}
      {asFile && (
        <MenuItem disabled={!head.may.import} onClick={show('import')}>
          {t('board.import')}
        </MenuItem>
      )}
      {asFile && (
        <MenuItem
          disabled={!head.may.import}
          component="a"
          href={`/api/calendars/${head.calendar.key}/file`}
          download
          onClick={onClose}
        >
          {t('board.export')}
        </MenuItem>
      )}
      {head.calendar.main &&
        ([1, 7] as const).map((count) => (
          <MenuItem
            key={count}
            component={Link}
            href={`/for/${head.owner.handle}/day-sheet?day=${dateText(days.day)}&days=${count}`}
            onClick={onClose}
          >
            {t(count === 1 ? 'sheet.day' : 'sheet.week')}
          </MenuItem>
        ))}
      {head.calendar.main && !head.as && frame.principals.some((p) => p.handle === head.owner.handle && p.tasks) && (
        <MenuItem onClick={show('tasks')}>{t('tasks.tasks')}</MenuItem>
      )}
      {head.own && <MenuItem onClick={show('calendar')}>{t('calendarItself.title')}</MenuItem>}
      {head.calendar.main && head.may.arrange && <MenuItem onClick={show('keeps')}>{t('keeps.title')}</MenuItem>}
      {head.calendar.main && !head.as && <MenuItem onClick={show('absence')}>{t('absences.title')}</MenuItem>}
      {head.may.bringBack && <MenuItem onClick={show('removed')}>{t('trail.removed')}</MenuItem>}
      {/* Where the foot of the board has no room for it. */}
      {days.narrow && (
        <li className={boardCss.legend}>
          <Legend />
        </li>
      )}
    </Menu>
  );
}
