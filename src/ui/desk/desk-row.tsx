import Button from '@mui/material/Button';
import { memo } from 'react';
import { useTranslations } from 'use-intl';
import type { DeskRowWire } from '@/contract/desk.ts';
import { Token } from '../common/token.tsx';
import deskCss from './desk.module.css';
import { useDeskWords } from './desk-words.ts';

/** A row: for whom, what, why it is here, and its steps by number. `moveTo` is the opening that its step would take, where one was found. */
export const DeskRow = memo(function DeskRow(props: {
  row: DeskRowWire;
  whose: { readonly name: string; readonly colour: number };
  selected: boolean;
  picked: boolean;
  moveTo: string | null;
  busy: boolean;
  onSelect: (key: string) => void;
  onStep: (key: string, n: number) => void;
}) {
  const { row, whose, selected, picked, moveTo, busy, onSelect, onStep } = props;
  const t = useTranslations('desk');
  const { words, actName } = useDeskWords();
  const { title, sub, wrong, why } = words(row);
  return (
    <li>
      <article
        id={`row-${row.key}`}
        className={`${deskCss.row} who-${whose.colour % 6}`}
        aria-label={title}
        aria-current={selected || undefined}
        data-picked={picked || undefined}
      >
        <Token name={whose.name} colour={whose.colour} />
        <button type="button" className={`plain ${deskCss.what}`} onClick={() => onSelect(row.key)}>
          <span className="visually-hidden">{t('panel.for', { name: whose.name })}: </span>
          <span className={deskCss.title}>{title}</span>
          <span className={deskCss.sub}>{sub}</span>
          {(row.passed || row.open.length > 0) && (
            <span className={deskCss.marks}>
              {row.passed && (
                <span>
                  {t('why.passed', { to: row.passed.to, by: row.passed.by })}
                  {row.passed.line && ` ${t('why.asks', { why: row.passed.line })}`}
                </span>
              )}
              {row.open.length > 0 && <span>{t('why.open', { who: row.open.join(', ') })}</span>}
            </span>
          )}
        </button>
        <p className={deskCss.why}>
          {wrong && <b>{wrong}</b>} {why}
        </p>
        <div className={deskCss.steps}>
          {row.steps.map(({ n, act }) => (
            <Button
              key={n}
              variant={selected && n === 1 ? 'contained' : 'outlined'}
              disabled={busy && selected}
              onClick={() => onStep(row.key, n)}
            >
              {act === 'another' && moveTo ? t('moveTo', { kind: row.kind, when: moveTo }) : actName(act, row)}
              <i aria-hidden="true">{n}</i>
            </Button>
          ))}
        </div>
      </article>
    </li>
  );
});
