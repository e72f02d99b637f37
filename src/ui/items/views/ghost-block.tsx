'use client';
import { useTranslations } from 'use-intl';
import { useFrame } from '../../common/frame-context.tsx';
import { clock, DAY } from '../../common/times.ts';
import { type Ghost, type GhostStore, useGhostIn } from './ghost.ts';
import hoursCss from './hours.module.css';

/** The ghost in one lane on one day of the hours. */
export function GhostBlock({ ghosts, lane, day }: { ghosts: GhostStore; lane: number; day: number }) {
  const ghost = useGhostIn(ghosts, lane, day, day + DAY);
  if (!ghost) return null;
  return (
    <div
      className={hoursCss.ghost}
      style={{
        top: `calc(${(ghost.start - day) / 3_600_000} * var(--hour))`,
        height: `calc(${(ghost.end - ghost.start) / 3_600_000} * var(--hour))`,
      }}
    >
      <GhostWords ghost={ghost} />
    </div>
  );
}

/** When it would be, into whose calendar it would go, and what it would lie over. */
export function GhostWords({ ghost }: { ghost: Ghost }) {
  const t = useTranslations('board');
  const { style } = useFrame();
  return (
    <>
      {clock(ghost.start, style.hours)}–{clock(ghost.end, style.hours)} {ghost.title}
      {ghost.goes && <span className={hoursCss['clash-words']}>{t('goesTo', { name: ghost.goes })}</span>}
      {ghost.clashes && <span className={hoursCss['clash-words']}>{t('clashWith', { title: ghost.clashes })}</span>}
    </>
  );
}
