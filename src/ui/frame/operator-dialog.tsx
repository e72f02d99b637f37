'use client';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import TextField from '@mui/material/TextField';
import { useQueryClient } from '@tanstack/react-query';
import { useId, useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import type { FrameAnswer } from '@/contract/frame.ts';
import { useActing } from '../common/fetched/acting.ts';
import { KEYS } from '../common/fetched/query-keys.ts';
import frameCss from './frame.module.css';

/**
 * Asks once a day who is behind an account that several people use: it stands with everything that is done in the window, and nothing is done
 * before. Asked again where somebody else takes over (`onClose` then).
 */
export function OperatorDialog(props: {
  account: string;
  hands: NonNullable<FrameAnswer['hands']>;
  onClose: (() => void) | null;
}) {
  const { account, hands: operators, onClose } = props;
  const t = useTranslations('hands');
  const client = useQueryClient();
  const title = useId();
  const [name, setName] = useState('');
  const { attempt, busy, refused } = useActing();
  const say = (who: string) =>
    attempt(async () => {
      await call('setOperator', { body: { name: who } });
      await client.invalidateQueries({ queryKey: KEYS.frame });
      onClose?.();
    });
  return (
    <Dialog open onClose={() => onClose?.()} aria-labelledby={title}>
      <form
        noValidate
        className={`stack gap-6 ${frameCss.form}`}
        onSubmit={(event) => {
          event.preventDefault();
          void say(name);
        }}
      >
        <h2 id={title}>{t('title')}</h2>
        <p className="small soft">{t('help', { account })}</p>
        {operators.before.length > 0 && (
          <div className="row">
            {operators.before.map((one) => (
              <Button key={one} variant="outlined" disabled={busy} onClick={() => void say(one)}>
                {one}
              </Button>
            ))}
          </div>
        )}
        <TextField
          label={t('name')}
          value={name}
          autoFocus
          error={refused !== null}
          helperText={refused}
          onChange={(event) => setName(event.target.value)}
          slotProps={{ inputLabel: { shrink: true }, htmlInput: { maxLength: 80 } }}
        />
        <div className="row">
          <Button type="submit" variant="contained" loading={busy}>
            {t('say')}
          </Button>
          {onClose && (
            <Button variant="outlined" onClick={onClose}>
              {t('stays')}
            </Button>
          )}
        </div>
      </form>
    </Dialog>
  );
}
