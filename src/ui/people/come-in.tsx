'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import { useActing } from '../common/fetched/acting.ts';
import { useHydrated } from '../common/hydrated.ts';
import { Link } from '../common/link.tsx';
import { Door } from './door.tsx';

/** A letter's single-use address: coming in is a press, so that a mail program that looks at addresses doesn't spend it. */
export function ComeIn({ token, to }: { token: string; to: string }) {
  const t = useTranslations();
  const hydrated = useHydrated();
  const { attempt, busy, refused } = useActing();
  return (
    <Door title={t('guest.enterTitle')} text={t('guest.enterText')}>
      {refused && <Alert severity="error">{refused}</Alert>}
      <Button
        variant="contained"
        disabled={!hydrated}
        loading={busy}
        onClick={() =>
          void attempt(async () => {
            await call('comeIn', { body: { token } });
            window.location.assign(to);
          })
        }
      >
        {t('guest.enter')}
      </Button>
      <Link href="/guest">{t('guest.again')}</Link>
    </Door>
  );
}
