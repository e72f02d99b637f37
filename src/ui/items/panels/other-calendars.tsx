'use client';
import MenuItem from '@mui/material/MenuItem';
import Select from '@mui/material/Select';
import { useRouter, useSearchParams } from 'next/navigation';
import { createPortal } from 'react-dom';
import { useTranslations } from 'use-intl';
import type { BoardHead } from '@/contract/items/items.ts';
import { BAND_CALENDAR } from '../../common/frame-context.tsx';
import boardCss from '../board/board.module.css';

/** Which of a person's calendars the board shows: beside them in the band, or in the head where the band says somebody else. */
export function OtherCalendars({ head, inBand }: { head: BoardHead; inBand: boolean }) {
  const t = useTranslations();
  const router = useRouter();
  const search = useSearchParams();
  const place = inBand ? document.getElementById(BAND_CALENDAR) : null;
  const choice = (
    <Select
      variant="standard"
      disableUnderline
      className={boardCss.calendar}
      value={head.calendar.key}
      SelectDisplayProps={{ 'aria-label': t('board.calendar') }}
      onChange={(e) => {
        const other = head.others.find((c) => c.key === e.target.value);
        if (!other) return;
        const next = new URLSearchParams(search);
        if (other.main) next.delete('c');
        else next.set('c', other.key);
        router.push(`?${next}`);
      }}
    >
      {[head.calendar, ...head.others].map((c) => (
        <MenuItem key={c.key} value={c.key}>
          {c.main ? t('board.mainCalendar') : c.name}
        </MenuItem>
      ))}
    </Select>
  );
  return place ? createPortal(choice, place) : choice;
}
