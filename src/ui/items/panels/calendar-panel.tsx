'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useQueryClient } from '@tanstack/react-query';
import { useRouter } from 'next/navigation';
import { type FormEvent, useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { BoardHead } from '@/contract/items/items.ts';
import boardsCss from '../../common/boards.module.css';
import { useActing } from '../../common/fetched/acting.ts';
import { KEYS } from '../../common/fetched/query-keys.ts';
import { ZoneField } from '../../common/fields/zone-field.tsx';
import { useFrame } from '../../common/frame-context.tsx';
import { PanelHead } from '../details/panel-head.tsx';

/** What one's own calendar is called and for; a further one is taken away here, and brought back by one press. */
export function CalendarPanel({ head, onClose }: { head: BoardHead; onClose: () => void }) {
  const t = useTranslations();
  const tc = useTranslations('calendarItself');
  const { toast } = useFrame();
  const client = useQueryClient();
  const router = useRouter();
  const [name, setName] = useState(head.calendar.name);
  const [description, setDescription] = useState(head.calendar.description);
  const [zone, setZone] = useState(head.calendar.zone);
  const { attempt, busy, refused, fields } = useActing(['name', 'description', 'zone']);
  const params = { calendar: head.calendar.key };
  const act = async (work: () => Promise<unknown>): Promise<boolean> => {
    const done = await attempt(work);
    void client.invalidateQueries({ queryKey: KEYS.calendars });
    void client.invalidateQueries({ queryKey: KEYS.lanes });
    return done;
  };
  const save = async (event: FormEvent) => {
    event.preventDefault();
    if (await act(() => call('changeCalendar', { params, body: { name, description, zone } }))) {
      toast({ text: tc('saved') });
      onClose();
    }
  };
  const back = async () => {
    await call('bringCalendarBack', { params }).catch(() => {});
    toast({ text: t('board.undone') });
    void client.invalidateQueries({ queryKey: KEYS.calendars });
    router.push(`/for/${head.owner.handle}/calendar?c=${encodeURIComponent(head.calendar.key)}`);
  };
  const remove = async () => {
    if (!(await act(() => call('removeCalendar', { params })))) return;
    toast({ text: tc('removed', { name: head.calendar.name }), undo: () => void back() });
    router.push(`/for/${head.owner.handle}/calendar`);
  };
  return (
    <aside className={boardsCss.panel} aria-label={tc('title')}>
      <PanelHead head={head} onClose={onClose} />
      <h2>{tc('title')}</h2>
      {refused && <Alert severity="error">{refused}</Alert>}
      <form onSubmit={save} noValidate>
        {!head.calendar.main && (
          <TextField
            label={tc('name')}
            value={name}
            error={!!fields.name}
            helperText={fields.name}
            onChange={(e) => setName(e.target.value)}
          />
        )}
        <TextField
          label={tc('description')}
          value={description}
          multiline
          minRows={2}
          error={!!fields.description}
          helperText={fields.description ?? tc('descriptionHelp')}
          onChange={(e) => setDescription(e.target.value)}
          slotProps={{ inputLabel: { shrink: true } }}
        />
        <ZoneField label={tc('zone')} value={zone} wrong={fields.zone} help={tc('zoneHelp')} onChange={setZone} />
        <div className={`row ${boardsCss['save-row']}`}>
          <Button type="submit" variant="contained" loading={busy}>
            {tc('save')}
          </Button>
          {!head.calendar.main && (
            <Button variant="outlined" color="error" loading={busy} onClick={() => void remove()}>
              {tc('remove')}
            </Button>
          )}
        </div>
      </form>
    </aside>
  );
}
