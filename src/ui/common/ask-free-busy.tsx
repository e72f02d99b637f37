'use client';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import { useFrame } from './frame-context.tsx';
import { said } from './refusal.ts';

/** As many as one mail goes to. */
const MOST = 50;

/**
 * Asks people of whom one sees nothing, in one press and in one's own name, to show when they are free or busy: a mail to each, with where
 * they set it. What came of it is their answer, and what one sees of them then.
 */
export function AskFreeBusy({ people }: { people: readonly { readonly name: string; readonly address: string }[] }) {
  const t = useTranslations('askFree');
  const common = useTranslations('common');
  const { frame } = useFrame();
  const [state, setState] = useState<'asked' | 'asking' | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  // Whoever was asked already isn't asked again where the rest is tried once more.
  const [done, setDone] = useState<ReadonlySet<string>>(new Set());
  if (people.length === 0) return null;
  const ask = async () => {
    setState('asking');
    setRefused(null);
    const me = frame.me.handle;
    try {
      const rest = people.filter((p) => !done.has(p.address));
      for (let from = 0; from < rest.length; from += MOST) {
        const to = rest.slice(from, from + MOST).map(({ address, name }) => ({ address, name }));
        const address = `${window.location.origin}/sightlines?who=person%3A${me}`;
        const text = t('text', { name: frame.me.name, address });
        await call('writeMail', { params: { person: me }, body: { to, subject: t('subject'), text, answers: null } });
        setDone((was) => new Set([...was, ...to.map((one) => one.address)]));
      }
      setState('asked');
    } catch (error) {
      setRefused(said(error, common('unreachable')).sentence);
      setState(null);
    }
  };
  return (
    <>
      <Button
        variant="outlined"
        loading={state === 'asking'}
        disabled={state === 'asked'}
        onClick={() => void ask()}
        sx={{ justifySelf: 'start', alignSelf: 'start' }}
      >
        {t(state === 'asked' ? 'asked' : 'ask', { count: people.length })}
      </Button>
      {refused && (
        <p className="wrong small" role="alert">
          {refused}
        </p>
      )}
    </>
  );
}
