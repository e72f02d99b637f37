'use client';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { BoardHead, ItemWire } from '@/contract/items/items.ts';
import { useActing, useActingWithToast } from '../../common/fetched/acting.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { firstName } from '../../common/token.tsx';
import { useLeaving, useMeetingsAgain } from '../../meetings/waiting.tsx';
import { useTargetItems, useTargets } from '../form/targets.tsx';

/** What was booked in the wrong calendar goes into the right one, with its people and their answers; those asked hear who calls it now. */
export function MoveItem({ item, head, onMoved }: { item: ItemWire; head: BoardHead; onMoved: () => void }) {
  const t = useTranslations();
  const { toast } = useFrame();
  const leaving = useLeaving();
  const again = useMeetingsAgain();
  const { attempt, refused } = useActing();
  const { attempt: takeBack } = useActingWithToast();
  const itemsOf = useTargetItems();
  const { calendars, cutShort } = useTargets();
  const others = calendars.filter((one) => one.key !== head.calendar.key);
  if (others.length === 0) return null;
  const move = async (to: string) => {
    const goal = others.find((one) => one.key === to);
    if (!goal) return;
    await attempt(async () => {
      const moved = await call('moveMeeting', { params: { item: item.id }, body: { to, version: item.version ?? 0 } });
      const back = async () => {
        await takeBack(async () => {
          const version = moved.item?.version ?? 0;
          await call('moveMeeting', { params: { item: item.id }, body: { to: head.calendar.key, version } });
          toast({ text: t('board.undone') });
        });
        again();
      };
      if (moved.sending) leaving(moved.sending, goal.owner.name, goal.owner.own);
      else toast({ text: t('panel.movedTo', { name: firstName(goal.owner.name) }), undo: () => void back() });
      onMoved();
    });
    again();
  };
  return (
    <TextField
      select
      label={t('panel.moveTo')}
      value=""
      error={refused !== null}
      helperText={refused}
      onChange={(e) => void move(e.target.value)}
      slotProps={{ inputLabel: { shrink: true }, select: { displayEmpty: true } }}
    >
      <MenuItem value="" disabled>
        {t('panel.moveChoose')}
      </MenuItem>
      {itemsOf({ calendars: others, cutShort })}
    </TextField>
  );
}
