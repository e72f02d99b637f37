'use client';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import Link from 'next/link';
import { useTranslations } from 'use-intl';
import type { BoardHead } from '@/contract/items/items.ts';
import { dateText } from '@/core/time/index.ts';
import { firstName } from '../../common/token.tsx';

/** The acts on a calendar as a whole, opened from its board's head. */
export function BoardMenu(props: {
  head: BoardHead;
  day: number;
  anchor: HTMLElement;
  onClose: () => void;
  onImport: () => void;
  onCalendar: () => void;
  onRemoved: () => void;
  onSearch: () => void;
  onKeeps: () => void;
}) {
  const { head, day, anchor, onClose, onImport, onCalendar, onRemoved, onSearch, onKeeps } = props;
  const t = useTranslations();
  return (
    <Menu anchorEl={anchor} open onClose={onClose} slotProps={{ paper: { sx: { border: '1px solid var(--line)' } } }}>
      <MenuItem
        onClick={() => {
          onClose();
          onSearch();
        }}
      >
        {t('search.open')}
      </MenuItem>
      {!head.may.import && (
        <li className="small soft" style={{ padding: '4px 16px', maxWidth: 260 }}>
          {t('errors.mayNotImport', { name: firstName(head.owner.name) })}
        </li>
      )}
      <MenuItem
        disabled={!head.may.import}
        onClick={() => {
          onClose();
          onImport();
        }}
      >
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
        ([1, 7] as const).map((days) => (
          <MenuItem
            key={days}
            component={Link}
            href={`/for/${head.owner.handle}/day-sheet?day=${dateText(day)}&days=${days}`}
            onClick={onClose}
          >
            {t(days === 1 ? 'sheet.day' : 'sheet.week')}
          </MenuItem>
        ))}
      {head.own && (
        <MenuItem
          onClick={() => {
            onClose();
            onCalendar();
          }}
        >
          {t('calendarItself.title')}
        </MenuItem>
      )}
      {head.calendar.main && head.may.arrange && (
        <MenuItem
          onClick={() => {
            onClose();
            onKeeps();
          }}
        >
          {t('keeps.title')}
        </MenuItem>
      )}
      {head.may.bringBack && (
        <MenuItem
          onClick={() => {
            onClose();
            onRemoved();
          }}
        >
          {t('trail.removed')}
        </MenuItem>
      )}
    </Menu>
  );
}
