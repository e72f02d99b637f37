'use client';
import { useEffect, useId, useRef, useState } from 'react';
import { useTranslations } from 'use-intl';
import { readDate } from '@/core/sentence/index.ts';
import { dateText, parseDate, toWall } from '@/core/time/index.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { isSpokenFor } from '../../common/keys.ts';
import goToCss from './go-to.module.css';

/** Goes to a date as it is typed; G begins typing. */
export function GoTo({ onGo }: { onGo: (day: number) => void }) {
  const t = useTranslations('board');
  const { style, now } = useFrame();
  const [text, setText] = useState('');
  const [wrong, setWrong] = useState(false);
  const said = useId();
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (isSpokenFor(event) || event.key.toLowerCase() !== 'g') return;
      event.preventDefault();
      field.current?.focus();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  const go = () => {
    const read = readDate(text, style.dateOrder, dateText(toWall(style.zone, now())));
    const day = read === null ? null : parseDate(read);
    setWrong(day === null);
    if (day === null) return;
    setText('');
    field.current?.blur();
    onGo(day);
  };
  return (
    <span className={goToCss['go-to']}>
      <input
        ref={field}
        value={text}
        placeholder={t('goToHint')}
        aria-label={t('goTo')}
        aria-invalid={wrong}
        aria-describedby={wrong ? said : undefined}
        maxLength={40}
        onChange={(e) => {
          setText(e.target.value);
          setWrong(false);
        }}
        onKeyDown={(e) => {
          if (e.key === 'Enter') go();
          if (e.key === 'Escape') {
            setText('');
            setWrong(false);
            field.current?.blur();
          }
        }}
      />
      {wrong && (
        <span id={said} role="alert" className={goToCss.wrong}>
          {t('goToWrong')}
        </span>
      )}
    </span>
  );
}
