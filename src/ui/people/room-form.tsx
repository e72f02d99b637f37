'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import { useActing } from '../common/fetched/acting.ts';
import { useFrame } from '../common/frame-context.tsx';

/** A room or a thing for the directory: what it is called, where it is, how many it holds. What was typed stays through a refusal. */
export function RoomForm({ onAdded }: { onAdded: (name: string) => void }) {
  const t = useTranslations();
  const { style } = useFrame();
  const [values, setValues] = useState({
    name: '',
    address: '',
    resource: 'room' as 'room' | 'thing',
    place: '',
    size: '',
  });
  const { attempt, busy, refused, fields: wrong } = useActing(['name', 'address', 'place', 'size']);
  const send = () =>
    attempt(async () => {
      const { size, ...rest } = values;
      const count = size.trim() === '' ? null : Number(size);
      await call('addRoom', { body: { ...rest, size: rest.resource === 'room' ? count : null, zone: style.zone } });
      onAdded(values.name.trim());
      setValues({ name: '', address: '', resource: values.resource, place: '', size: '' });
    });
  const input = (name: 'name' | 'address' | 'place' | 'size', label: string, help?: string) => (
    <TextField
      label={label}
      value={values[name]}
      error={wrong[name] !== undefined}
      helperText={wrong[name] ?? help}
      onChange={(e) => setValues({ ...values, [name]: e.target.value })}
      slotProps={{ inputLabel: { shrink: true } }}
    />
  );
  return (
    <form
      aria-label={t('rooms.title')}
      className="gap-6 stack"
      onSubmit={(e) => {
        e.preventDefault();
        void send();
      }}
    >
      {refused && <Alert severity="error">{refused}</Alert>}
      <TextField
        select
        label={t('rooms.kind')}
        value={values.resource}
        onChange={(e) => setValues({ ...values, resource: e.target.value as 'room' | 'thing' })}
        slotProps={{ inputLabel: { shrink: true } }}
      >
        <MenuItem value="room">{t('rooms.room')}</MenuItem>
        <MenuItem value="thing">{t('rooms.thing')}</MenuItem>
      </TextField>
      {input('name', t('rooms.name'))}
      {input('address', t('people.address'), t('rooms.addressHelp'))}
      {input('place', t('rooms.place'))}
      {values.resource === 'room' && input('size', t('rooms.size'))}
      <Button type="submit" variant="outlined" loading={busy}>
        {t('rooms.add')}
      </Button>
    </form>
  );
}
