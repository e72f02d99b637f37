'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import { useActing } from '../../common/fetched/acting.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { useFrame } from '../../common/frame-context.tsx';
import pageCss from '../../common/page.module.css';

/** A further calendar, with an access of its own: the place for what others, or strangers, are meant to see. */
export function BeginCalendar(props: {
  of: string;
  onAdded: (key: string, name: string) => void;
  onClose: () => void;
}) {
  const t = useTranslations();
  const { frame } = useFrame();
  const [name, setName] = useState('');
  const [group, setGroup] = useState('');
  // A calendar for a group is its maker's own.
  const own = props.of === frame.me.handle && frame.me.inside;
  const { data: groups } = useQuery({ queryKey: KEYS.groups, queryFn: () => call('listGroups', {}), enabled: own });
  const { attempt, busy, refused, fields } = useActing(['name']);
  return (
    <form
      className={`${pageCss.card} gap-5 stack`}
      aria-label={t('lines.beginCalendar')}
      onSubmit={(event) => {
        event.preventDefault();
        void attempt(async () => {
          const { calendar } = await call('beginCalendar', {
            body: { of: props.of, name, ...(group ? { group } : {}) },
          });
          props.onAdded(calendar, name);
        });
      }}
    >
      {refused && <Alert severity="error">{refused}</Alert>}
      <TextField
        label={t('lines.calendarName')}
        value={name}
        autoFocus
        error={!!fields.name}
        helperText={fields.name ?? t('lines.calendarNameHelp')}
        onChange={(e) => setName(e.target.value)}
      />
      {own && groups && groups.groups.length > 0 && (
        <TextField
          select
          label={t('lines.calendarGroup')}
          value={group}
          helperText={t('lines.calendarGroupHelp')}
          onChange={(e) => setGroup(e.target.value)}
          slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
        >
          <MenuItem value="">{t('lines.calendarNoGroup')}</MenuItem>
          {groups.groups.map((one) => (
            <MenuItem key={one.key} value={one.key}>
              {one.name}
            </MenuItem>
          ))}
        </TextField>
      )}
      <div className="row">
        <Button type="submit" variant="contained" loading={busy}>
          {t('lines.calendarBeginDo')}
        </Button>
        <Button variant="outlined" onClick={props.onClose}>
          {t('form.cancel')}
        </Button>
      </div>
    </form>
  );
}
