'use client';
import Button from '@mui/material/Button';
import { useQueryClient } from '@tanstack/react-query';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { WrittenAnswer } from '@/contract/items/items.ts';
import type { SendingWire } from '@/contract/meetings/meetings.ts';
import { useActingWithToast } from '../common/fetched/acting.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import { useFrame } from '../common/frame-context.tsx';
import { firstName } from '../common/token.tsx';
import meetingsCss from './meetings.module.css';

/** Everything that shows meetings, asked again: what one did there is in calendars and messages alike. */
export function useMeetingsAgain(): () => void {
  const client = useQueryClient();
  return () => {
    void client.invalidateQueries({ queryKey: KEYS.calendars });
    void client.invalidateQueries({ queryKey: KEYS.meetings });
    void client.invalidateQueries({ queryKey: KEYS.everyonesMessages });
    void client.invalidateQueries({ queryKey: KEYS.frame });
  };
}

/** Says that something leaves in some seconds, with the press that takes it back, or that it waits for somebody who may say it. */
export function useLeaving(): (sending: NonNullable<WrittenAnswer['sending']>, name: string, own: boolean) => void {
  const t = useTranslations();
  const { toast } = useFrame();
  const { attempt } = useActingWithToast();
  const again = useMeetingsAgain();
  return (sending, name, own) => {
    const words = { name: firstName(name), own: own ? 'yes' : 'no', to: sending.to, outside: sending.outside };
    if (sending.leaves === null) {
      toast({ text: t('meetings.waitsForOthers', words) });
      return;
    }
    const back = async () => {
      await attempt(async () => {
        await call('takeBack', { params: { sending: sending.key } });
        toast({ text: t('meetings.takenBack') });
      });
      again();
    };
    toast({ text: t('meetings.leaves', words), undo: () => void back(), undoWord: t('meetings.takeBack') });
  };
}

/** What waits to be said of a meeting: to whom, and what may be done about it. */
export function Waiting({ waiting, name }: { waiting: readonly SendingWire[]; name: string }) {
  const t = useTranslations();
  const { toast } = useFrame();
  const again = useMeetingsAgain();
  const { attempt, busy } = useActingWithToast();
  const act = async (key: string, how: 'sayIt' | 'takeBack') => {
    await attempt(async () => {
      await call(how, { params: { sending: key } });
      toast({ text: t(how === 'sayIt' ? 'meetings.saidSoon' : 'meetings.takenBack') });
    });
    again();
  };
  return waiting.map((s) => (
    <div key={s.key} className={meetingsCss.waits} role="status">
      <p className="small">
        {t(`meetings.act.${s.act}`, { who: s.who, to: s.to.length, outside: s.to.filter((p) => p.outside).length })}{' '}
        <span className="soft">
          {s.to
            .slice(0, 6)
            .map((p) => p.name)
            .join(', ')}
          {s.to.length > 6 ? ' …' : ''}
        </span>
      </p>
      <p className="small soft">
        {t(s.leaves === null ? 'meetings.waitsFor' : 'meetings.leavesSoon', { name: firstName(name) })}
      </p>
      <div className={meetingsCss.row}>
        {s.leaves === null && s.maySay && (
          <Button variant="contained" loading={busy} onClick={() => void act(s.key, 'sayIt')}>
            {t('meetings.sayIt', {
              name: firstName(name),
              to: s.to.length,
              outside: s.to.filter((p) => p.outside).length,
            })}
          </Button>
        )}
        {(s.mine || s.maySay) && (
          <Button variant="outlined" loading={busy} onClick={() => void act(s.key, 'takeBack')}>
            {t('meetings.takeBack')}
          </Button>
        )}
      </div>
    </div>
  ));
}
