'use client';
import Button from '@mui/material/Button';
import { useTranslations } from 'use-intl';
import type { BoardHead } from '@/contract/items/items.ts';
import { parseDate } from '@/core/time/index.ts';
import boardsCss from '../../common/boards.module.css';
import { firstName } from '../../common/token.tsx';
import type { Draft, Values } from './item-values.ts';
import { useMine, useOpenCopy } from './open-copy.ts';

/** The foot of a form that can't be saved any more: what was typed goes into one's own calendar, for oneself, or is discarded. */
export function GoneRow(props: {
  draft: Draft;
  head: BoardHead;
  typed: Values;
  /** What was typed is elsewhere from now on, or nowhere. */
  onOver: () => void;
}) {
  const { draft, head, typed, onOver } = props;
  const t = useTranslations();
  const openCopy = useOpenCopy();
  const mine = useMine();
  const name = firstName(head.owner.name);
  const start = parseDate(typed.day);
  const copy = () => {
    if (!mine || start === null) return;
    const title = typed.title && t('panel.copyTitle', { title: typed.title, name });
    // Who would have come, and what is said to those who act for her, stays behind.
    const { briefing: _, scope: __, ...values } = typed;
    const data = { item: null, start, end: start, why: '', people: null };
    onOver();
    openCopy(
      mine,
      { ...data, values: { ...values, title, visibility: 'private' } },
      { id: draft.kind === 'change' ? draft.item.id : '', title: typed.title },
    );
  };
  return (
    <div className={`stack gap-2 ${boardsCss['save-row']}`}>
      <p className="small" role="status">
        {t('form.gone', { name })}
      </p>
      <div className="row">
        {mine && !head.own && (
          <Button variant="contained" disabled={start === null} onClick={copy}>
            {t('panel.copyMine')}
          </Button>
        )}
        <Button variant="outlined" onClick={onOver}>
          {t('form.discard')}
        </Button>
      </div>
    </div>
  );
}
