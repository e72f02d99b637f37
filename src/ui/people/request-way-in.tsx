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

/** Where somebody outside asks for a letter with a way in. The answer is the same for every address. */
export function RequestWayIn({ demo }: { demo: boolean }) {
  const t = useTranslations();
  const hydrated = useHydrated();
  const [sent, setSent] = useState(false);
  const { attempt, busy, refused, fields } = useActing(['address']);
  return (
    <Door title={t('guest.title')} text={t('guest.intro')}>
      {refused && <Alert severity="error">{refused}</Alert>}
      {sent && (
        <Alert severity="success" role="status">
          {t('guest.sent')} {demo && <Link href="/letterbox">{t('guest.letterbox')}</Link>}
        </Alert>
      )}
      <form
        method="post"
        noValidate
        className="gap-6 stack"
        onSubmit={(event) => {
          event.preventDefault();
          // As it stands in the field: what was typed before the page's script was there counts too.
          const address = String(new FormData(event.currentTarget).get('address') ?? '');
          setSent(false);
          void attempt(async () => {
            await call('askWayIn', { body: { address } });
            setSent(true);
          });
        }}
      >
        <TextField
          label={t('guest.address')}
          type="email"
          name="address"
          error={!!fields.address}
          helperText={fields.address}
        />
        <Button type="submit" variant="contained" loading={busy} disabled={!hydrated}>
          {t('guest.send')}
        </Button>
      </form>
    </Door>
  );
}
