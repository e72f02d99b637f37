'use client';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useRouter, useSearchParams } from 'next/navigation';
import { useTranslations } from 'use-intl';
import type { BoardHead } from '@/contract/items/items.ts';

/** Which of a person's calendars the board shows. */
export function OtherCalendars({ head }: { head: BoardHead }) {
  const t = useTranslations();
  const router = useRouter();
  const search = useSearchParams();
  return (
    <TextField
      select
      label={t('board.calendar')}
      value={head.calendar.key}
      fullWidth={false}
      sx={{ width: 106 }}
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
    </TextField>
  );
}
