'use client';
import { type ReactNode, useEffect, useId, useRef, useState } from 'react';
import { useTranslations } from 'use-intl';
import { readDate } from '@/core/sentence/index.ts';
import { dateText, parseDate, toWall } from '@/core/time/index.ts';
import { useFrame } from '../../common/frame-context.tsx';
import { isSpokenFor } from '../../common/keys.ts';
import goToCss from './go-to.module.css';

/** Which days the board shows: pressed, or G, another date is typed in its place. */
export function GoTo({ title, before, onGo }: { title: string; before: ReactNode; onGo: (day: number) => void }) {
  const t = useTranslations('board');
  const { style, now } = useFrame();
  const [text, setText] = useState('');
  const [typing, setTyping] = useState(false);
  const [wrong, setWrong] = useState(false);
  const said = useId();
  const pressed = useRef<HTMLButtonElement>(null);
  // Where the focus goes back to, once the date stands there again.
  const back = useRef(false);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (isSpokenFor(event) || event.key.toLowerCase() !== 'g') return;
      event.preventDefault();
      setTyping(true);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  useEffect(() => {
    if (typing || !back.current) return;
    back.current = false;
    pressed.current?.focus();
  }, [typing]);
  const leave = () => {
    setText('');
    setWrong(false);
    setTyping(false);
  };
  const go = () => {
    const read = readDate(text, style.dateOrder, dateText(toWall(style.zone, now())));
    const day = read === null ? null : parseDate(read);
    setWrong(day === null);
    if (day === null) return;
    back.current = true;
    leave();
    onGo(day);
  };
  return (
    <h1 className={goToCss['go-to']}>
      {before}
      <button
        ref={pressed}
        type="button"
        className={`plain ${goToCss.date}`}
        title={t('goTo')}
        data-typing={typing || undefined}
        onClick={() => setTyping(true)}
      >
        {title}
      </button>
      {typing && (
        <input
          // biome-ignore lint/a11y/noAutofocus: it stands where the date was pressed
          autoFocus
          value={text}
          placeholder={t('goToHint')}
          aria-label={t('goTo')}
          aria-invalid={wrong}
          aria-describedby={wrong ? said : undefined}
          maxLength={40}
          onBlur={() => text === '' && leave()}
          onChange={(e) => {
            setText(e.target.value);
            setWrong(false);
          }}
          onKeyDown={(e) => {
            if (e.key !== 'Enter' && e.key !== 'Escape') return;
            // The date takes the focus back: the key isn't meant for it.
            e.preventDefault();
            if (e.key === 'Enter') return go();
            back.current = true;
            leave();
          }}
        />
      )}
      {wrong && (
        <span id={said} role="alert" className={goToCss.wrong}>
          {t('goToWrong')}
        </span>
      )}
    </h1>
  );
}
