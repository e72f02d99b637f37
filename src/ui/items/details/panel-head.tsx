'use client';
import Button from '@mui/material/Button';
import { useTranslations } from 'use-intl';
import type { BoardHead } from '@/contract/items/items.ts';
import boardsCss from '../../common/boards.module.css';
import { firstName } from '../../common/token.tsx';

/** Whose calendar a panel works in, in their colour, and the way out of it. */
export function PanelHead({ head, onClose }: { head: BoardHead; onClose: () => void }) {
  const t = useTranslations('panel');
  return (
    <div className={boardsCss.for}>
      <span>
        {head.own ? t('mine') : t('in', { name: firstName(head.owner.name) })}
        {!head.calendar.main && `: ${head.calendar.name}`}
      </span>
      <Button variant="text" onClick={onClose} className="low">
        {t('close')}
      </Button>
    </div>
  );
}
