'use client';
import { useTranslations } from 'use-intl';
import { useFrame } from '../common/frame-context.tsx';
import { clock } from '../common/times.ts';
import hoursCss from './hours.module.css';

/** A time on the board while something is drawn or moved, in wall-clock milliseconds. */
export interface Ghost {
  readonly start: number;
  readonly end: number;
  readonly title: string;
  readonly clashes: string | null;
  /** The lane it lies in, and whose that is where it comes from another. */
  readonly lane: number;
  readonly goes?: string | null;
}

export function GhostBlock({ ghost, day }: { ghost: Ghost; day: number }) {
  const t = useTranslations('board');
  const { style } = useFrame();
  return (
    <div
      className={hoursCss.ghost}
      style={{
        top: `calc(${(ghost.start - day) / 3_600_000} * var(--hour))`,
        height: `calc(${(ghost.end - ghost.start) / 3_600_000} * var(--hour))`,
      }}
    >
      {clock(ghost.start, style.hours)}–{clock(ghost.end, style.hours)} {ghost.title}
      {ghost.goes && <span className={hoursCss['clash-words']}>{t('goesTo', { name: ghost.goes })}</span>}
      {ghost.clashes && <span className={hoursCss['clash-words']}>{t('clashWith', { title: ghost.clashes })}</span>}
    </div>
  );
}
