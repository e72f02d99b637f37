'use client';
import Button from '@mui/material/Button';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import type { SightlinesAnswer } from '@/contract/sharing/sharing.ts';
import { OF_KIND } from '../common/of-kind.ts';

/** What is done to a calendar's sharing as a whole, and seldom. */
export function MoreMenu(props: {
  lines: SightlinesAnswer;
  onLayers: () => void;
  onCalendar: () => void;
  onSuspend: () => void;
}) {
  const { lines, onLayers, onCalendar, onSuspend } = props;
  const t = useTranslations();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const item = (text: string, act: () => void) => (
    <MenuItem
      onClick={() => {
        setAnchor(null);
        act();
      }}
    >
      {text}
    </MenuItem>
  );
  return (
    <>
      <Button variant="outlined" onClick={(e) => setAnchor(e.currentTarget)} aria-haspopup="menu">
        {t(`lines.moreMenu${OF_KIND[lines.calendar.kind]}`)}
      </Button>
      <Menu
        anchorEl={anchor}
        open={anchor !== null}
        onClose={() => setAnchor(null)}
        slotProps={{ paper: { sx: { border: '1px solid var(--line)' } } }}
      >
        {lines.calendar.kind === 'calendar' && item(t('lines.layers'), onLayers)}
        {!lines.asAdministrator && item(t('lines.beginCalendar'), onCalendar)}
        {lines.own && item(lines.suspended ? t('lines.resume') : t('lines.suspend'), onSuspend)}
      </Menu>
    </>
  );
}
