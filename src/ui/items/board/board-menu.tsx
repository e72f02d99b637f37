'use client';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import Link from 'next/link';
import { useTranslations } from 'use-intl';
import type { BoardHead } from '@/contract/items/items.ts';
import { dateText } from '@/core/time/index.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { firstName } from '../../common/token.tsx';
import { useBoard } from './board-model.ts';
import type { SidePanelName } from './board-state.ts';

/** The acts on a calendar as a whole, opened from its board's head. */
export function BoardMenu(props: { head: BoardHead; anchor: HTMLElement; onClose: () => void }) {
  const { head, anchor, onClose } = props;
  const { days, dispatch, seek } = useBoard();
  const { frame } = useFrame();
  const show = (panel: SidePanelName) => () => {
    onClose();
    dispatch({ act: 'panel', panel });
  };
  const t = useTranslations();
  return (
    <Menu anchorEl={anchor} open onClose={onClose} slotProps={{ paper: { sx: { border: '1px solid var(--line)' } } }}>
      <MenuItem
        onClick={() => {
          onClose();
          dispatch({ act: 'settle', item: null });
          seek({ words: '', kind: null });
        }}
      >
        {t('search.open')}
      </MenuItem>
      {!head.may.import && (
        <li className="small soft" style={{ padding: '4px 16px', maxWidth: 260 }}>
          {t('errors.mayNotImport', { name: firstName(head.owner.name) })}
        </li>
      )}
      <MenuItem disabled={!head.may.import} onClick={show('import')}>
        {t('board.import')}
      </MenuItem>
      <MenuItem
        disabled={!head.may.import}
        component="a"
        href={`/api/calendars/${head.calendar.key}/file`}
        download
        onClick={onClose}
      >
        {t('board.export')}
      </MenuItem>
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
    </Menu>
  );
}
