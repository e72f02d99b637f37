'use client';
import Button from '@mui/material/Button';
import type { UseQueryResult } from '@tanstack/react-query';
import { useTranslations } from 'use-intl';
import { CallRefused } from '@/contract/call.ts';

/**
 * What stands where an answer is not there yet, may not be had, or couldn't be had: each said in its own words, the last with a
 * way to try again. Nothing once it is there.
 */
export function QueryState({ query }: { query: Pick<UseQueryResult, 'isPending' | 'isError' | 'error' | 'refetch'> }) {
  const t = useTranslations();
  if (query.isPending)
    return (
      <p className="soft" role="status">
        {t('common.loading')}
      </p>
    );
  if (!query.isError) return null;
  if (query.error instanceof CallRefused) return <p role="alert">{query.error.message}</p>;
  return (
    <div role="alert" className="row">
      {t('common.unreachable')}
      <Button variant="outlined" onClick={() => void query.refetch()}>
        {t('board.again')}
      </Button>
    </div>
  );
}
