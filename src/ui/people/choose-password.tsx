'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import { useActing } from '../common/fetched/acting.ts';
import { useHydrated } from '../common/hydrated.ts';
import { Link } from '../common/link.tsx';
import { Door } from './door.tsx';

/** Choosing a password by an address that an administrator handed over. */
export function ChoosePassword({ token }: { token: string }) {
  const t = useTranslations();
  const hydrated = useHydrated();
  const [password, setPassword] = useState('');
  const { attempt, busy, refused, fields } = useActing(['password']);
  const [done, setDone] = useState(false);
  return (
    <Door title={t('wayIn.title')} text={t('wayIn.text')}>
      {refused && <Alert severity="error">{refused}</Alert>}
      {done ? (
        <Alert severity="success" role="status">
          {t('wayIn.done')} <Link href="/sign-in">{t('wayIn.signIn')}</Link>
        </Alert>
      ) : (
        <form
          method="post"
          noValidate
          className="gap-6 stack"
          onSubmit={(event) => {
            event.preventDefault();
            void attempt(async () => {
              await call('choosePassword', { body: { token, password } });
              setDone(true);
            });
          }}
        >
          <TextField
            label={t('wayIn.password')}
            type="password"
            autoComplete="new-password"
            value={password}
            error={!!fields.password}
            helperText={fields.password ?? t('people.passwordHelp')}
            onChange={(e) => setPassword(e.target.value)}
          />
          <Button type="submit" variant="contained" loading={busy} disabled={!hydrated}>
            {t('wayIn.do')}
          </Button>
        </form>
      )}
    </Door>
  );
}
