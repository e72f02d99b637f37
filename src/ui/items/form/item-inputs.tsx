'use client';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { Controller, type UseFormReturn } from 'react-hook-form';
import { dateText, parseDate } from '@/core/time/index.ts';
import { DateField } from '../../common/fields/date-field.tsx';
import { RichField } from '../../common/fields/rich-field.tsx';
import { TimeField } from '../../common/fields/time-field.tsx';
import type { Values } from './item-values.ts';

/** The form's fields, made by what they hold: text, a text with marks, one of some words, a date, a time. `onStartMoved` is told when the start was moved. */
export function itemInputs(form: UseFormReturn<Values>, onStartMoved: (was: string, is: string) => void) {
  const { control, register, formState } = form;
  const { errors } = formState;
  const helper = (name: keyof Values) => errors[name]?.message;
  const input = (name: keyof Values, label: string, more: object = {}) => (
    <TextField
      label={label}
      error={!!errors[name]}
      helperText={helper(name)}
      {...register(name)}
      slotProps={{ inputLabel: { shrink: true } }}
      {...more}
    />
  );
  const choice = (
    name: 'kind' | 'shows' | 'visibility' | 'importance' | 'repeat',
    label: string,
    options: [string, string][],
    help?: string,
  ) => (
    <Controller
      name={name}
      control={control}
      render={({ field }) => (
        <TextField
          select
          label={label}
          {...field}
          error={!!errors[name]}
          helperText={helper(name) ?? help}
          slotProps={{ inputLabel: { shrink: true }, select: { native: false } }}
        >
          {options.map(([value, word]) => (
            <MenuItem key={value} value={value}>
              {word}
            </MenuItem>
          ))}
        </TextField>
      )}
    />
  );
  const richInput = (name: 'notes', label: string, more: { disabled?: boolean } = {}) => (
    <Controller
      name={name}
      control={control}
      render={({ field }) => (
        <RichField label={label} value={field.value} error={helper(name)} onChange={field.onChange} {...more} />
      )}
    />
  );
  const dateInput = (name: 'day' | 'lastDay' | 'repeatUntil', label: string) => (
    <Controller
      name={name}
      control={control}
      render={({ field }) => (
        <DateField
          label={label}
          value={field.value}
          error={helper(name)}
          onChange={(value) => {
            // What begins and ends on one day does so while another is typed, too.
            if (name === 'day' && form.getValues('lastDay') === field.value)
              form.setValue('lastDay', value, { shouldDirty: true });
            field.onChange(value);
          }}
          onLeave={(was, is) => name === 'day' && moveLastDay(was, is)}
        />
      )}
    />
  );
  // Typed as one likes (930, 9:30, 2pm), shown by one's own clock once left.
  const timeInput = (name: 'from' | 'to', label: string) => (
    <Controller
      name={name}
      control={control}
      render={({ field }) => (
        <TimeField
          label={label}
          value={field.value}
          error={helper(name)}
          onChange={field.onChange}
          onLeave={(was, is) => name === 'from' && onStartMoved(was, is)}
        />
      )}
    />
  );
  // Several days stay as many when the first of them is moved.
  const moveLastDay = (was: string, is: string) => {
    const [before, now, last] = [was, is, form.getValues('lastDay')].map(parseDate);
    if (before == null || now == null || last == null || before >= last) return;
    if (form.getValues('lastDay') !== is)
      form.setValue('lastDay', dateText(last + now - before), { shouldDirty: true });
  };
  return { helper, input, choice, richInput, dateInput, timeInput };
}
