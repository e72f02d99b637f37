'use client';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import type { BroughtIn } from '@/contract/lists.ts';
import { useActing } from '../fetched/acting.ts';
import { FileButton } from '../fields/file-button.tsx';
import type { ListsOf } from './list-nav.tsx';

/** A list as a file, and what a file holds into it: for whoever may have all of it. */
export function ListFile(props: {
  of: ListsOf;
  /** Where its file is. */
  href: string;
  /** The kinds of file that can be brought in. */
  accept: string;
  send: (file: File) => Promise<BroughtIn>;
  onDone: (text: string, undo: string) => Promise<void>;
}) {
  const { of, href, accept, send, onDone } = props;
  const t = useTranslations(of);
  const [problems, setProblems] = useState<BroughtIn | null>(null);
  const { attempt, busy, refused } = useActing();
  const bring = (file: File) =>
    attempt(async () => {
      const done = await send(file);
      setProblems(done.left > 0 ? done : null);
      await onDone(t('imported', { added: done.added, changed: done.changed, same: done.same }), done.undo);
    });
  return (
    <>
      <Button variant="text" component="a" href={href} download>
        {t('export')}
      </Button>
      <FileButton label={t('import')} accept={accept} busy={busy} onFile={(file) => void bring(file)} />
      {refused && <Alert severity="error">{refused}</Alert>}
      {problems && (
        <Alert severity="warning" onClose={() => setProblems(null)}>
          {t('importProblems', {
            count: problems.left,
            list: problems.problems
              .slice(0, 5)
              .map(({ line, title }) => t('importLine', { line, title: title ?? t('untitled') }))
              .join(', '),
          })}
        </Alert>
      )}
    </>
  );
}
