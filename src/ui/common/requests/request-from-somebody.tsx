'use client';
import Button from '@mui/material/Button';
import { useQuery } from '@tanstack/react-query';
import { useSearchParams } from 'next/navigation';
import { useTranslations } from 'use-intl';
import { call } from '@/contract/call.ts';
import { KEYS } from '../fetched/query-keys.ts';
import { useFrame } from '../frame-context.tsx';

/**
 * Where an address shows nothing: the way to ask somebody. Whom it named is filled in where the directory, which everybody inside reads,
 * has them; that there is anything behind it isn't said by that.
 */
export function RequestFromSomebody({ of: whom }: { of?: string }) {
  const t = useTranslations('ask');
  const { requestAccess, frame } = useFrame();
  const inAddress = useSearchParams().get('of');
  const of = whom ?? inAddress;
  const directory = useQuery({
    queryKey: KEYS.people,
    queryFn: () => call('listPeople', {}),
    staleTime: 60_000,
    enabled: frame.me.inside,
    retry: false,
  });
  if (!requestAccess || !frame.me.inside) return null;
  const named = directory.data?.people.find((p) => p.handle === of && p.handle !== frame.me.handle);
  return (
    <Button
      variant="outlined"
      onClick={() => requestAccess({ people: named ? [named] : [], has: named?.rights ?? null })}
    >
      {named ? t('moreOf', { name: named.name }) : t('somebody')}
    </Button>
  );
}
