'use client';
import Button from '@mui/material/Button';
import { useTranslations } from 'use-intl';
import type { BoardHead } from '@/contract/items/items.ts';
import boardsCss from '../../common/boards.module.css';
import { firstName } from '../../common/token.tsx';
import type { Sends } from './item-people.ts';

/** The foot of the form: what saving does, and in whose calendar. */
export function SaveRow(props: {
  head: BoardHead;
  forward: boolean;
  busy: boolean;
  typed: boolean;
  sends: Sends | null;
  onLeave: () => void;
}) {
  const { head, forward, busy, typed, sends, onLeave } = props;
  const t = useTranslations();
  const owner = firstName(head.owner.name);
  const words = sends && { name: owner, own: head.own ? 'yes' : 'no', to: sends.to, outside: sends.outside };
  return (
    <div className={`row ${boardsCss['save-row']}`}>
      <Button type="submit" variant="contained" loading={busy}>
        {words
          ? t(sends.maySpeak ? 'form.send' : 'form.sendLater', words)
          : forward
            ? t(head.calendar.main ? 'form.forward' : 'form.forwardFurther', {
                name: owner,
                calendar: head.calendar.name,
              })
            : head.calendar.main
              ? head.own
                ? t('form.saveMine')
                : t('form.save', { name: owner })
              : t(head.own ? 'form.saveMineFurther' : 'form.saveFurther', {
                  name: owner,
                  calendar: head.calendar.name,
                })}
      </Button>
      <Button variant="outlined" onClick={onLeave}>
        {typed ? t('form.discard') : t('form.cancel')}
      </Button>
    </div>
  );
}
