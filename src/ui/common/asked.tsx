'use client';
import Button from '@mui/material/Button';
import type { UseQueryResult } from '@tanstack/react-query';
import { useTranslations } from 'use-intl';

/** What stands where an answer is not there yet, or couldn't be had: said, with a way to try again. Nothing once it is there. */
export function Asked({ query }: { query: Pick<UseQueryResult, 'isPending' | 'isError' | 'refetch'> }) {
  const t = useTranslations();
  if (query.isPending)
    return (
      <p className="soft" role="status">
        {t('common.loading')}
      </p>
    );
  if (!query.isError) return null;
  return (
    <div role="alert" className="row">
      {t('common.unreachable')}
      <Button variant="outlined" onClick={() => void query.refetch()}>
        {t('board.again')}
      </Button>
    </div>
  );
}
