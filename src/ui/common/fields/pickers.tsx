'use client';
import { AdapterDayjs } from '@mui/x-date-pickers/AdapterDayjs';
import { DateCalendar } from '@mui/x-date-pickers/DateCalendar';
import { DigitalClock } from '@mui/x-date-pickers/DigitalClock';
import { LocalizationProvider } from '@mui/x-date-pickers/LocalizationProvider';
import dayjs, { type Dayjs } from 'dayjs';
import english from 'dayjs/locale/en';
import portuguese from 'dayjs/locale/pt';
import type { ReactNode } from 'react';
import { language } from '../language.ts';

/** Weeks that begin on any day: the language's own would always begin on the same. Monday is 1, Sunday 7. */
for (const spoken of [english, portuguese])
  for (let first = 1; first <= 7; first++)
    dayjs.locale({ ...spoken, name: `${spoken.name}-from-${first}`, weekStart: first % 7 }, undefined, true);

const Located = ({ first = 1, children }: { first?: number; children: ReactNode }) => (
  <LocalizationProvider dateAdapter={AdapterDayjs} adapterLocale={`${language()}-from-${first}`}>
    {children}
  </LocalizationProvider>
);

/** A month of days to pick from, its weeks beginning on the person's own day. */
export function Days(props: { value: string; first: number; onPick: (date: string) => void }) {
  return (
    <Located first={props.first}>
      <DateCalendar
        autoFocus
        value={dayjs(props.value)}
        onChange={(day: Dayjs | null, state) => state === 'finish' && day && props.onPick(day.format('YYYY-MM-DD'))}
        views={['year', 'month', 'day']}
        openTo="day"
        fixedWeekNumber={6}
        // Today is the person's, not the machine's: the board says which it is.
        disableHighlightToday
      />
    </Located>
  );
}

/** The times of a day to pick from, a quarter of an hour apart, by the person's own clock. */
export function HoursOfDay(props: { value: string; hours: '12' | '24'; onPick: (time: string) => void }) {
  return (
    <Located>
      <DigitalClock
        autoFocus
        ampm={props.hours === '12'}
        timeStep={15}
        value={dayjs(`2027-01-01T${props.value}`)}
        onChange={(time: Dayjs | null) => time && props.onPick(time.format('HH:mm'))}
      />
    </Located>
  );
}
