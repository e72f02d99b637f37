'use client';
import Button from '@mui/material/Button';
import type { ReactNode } from 'react';
import { useTranslations } from 'use-intl';
import type { BoardHead } from '@/contract/items/items.ts';
import boardsCss from '../../common/boards.module.css';
import { firstName } from '../../common/token.tsx';

/** Whose calendar a panel works in, in their colour, and the way out of it. */
export function PanelHead(props: {
  head: BoardHead;
  onClose: () => void;
  /** In place of the words: what says the same, and lets one choose. */
  children?: (words: string) => ReactNode;
}) {
  const { head, onClose, children } = props;
  const t = useTranslations('panel');
  const whose = head.own ? t('mine') : t('in', { name: firstName(head.owner.name) });
  const words = head.calendar.main ? whose : `${whose}: ${head.calendar.name}`;
  return (
    <div className={boardsCss.for}>
      {children ? children(words) : <span>{words}</span>}
      <Button variant="text" onClick={onClose} className="low">
        {t('close')}
      </Button>
    </div>
  );
}
