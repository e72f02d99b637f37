import { useTranslations } from 'use-intl';
import keysCss from './key-list.module.css';

/** Every key, by where it is heard. The same key is the same act wherever it is. */
export const KEYS_OF = {
  everywhere: [
    ['Ctrl K', 'find'],
    ['?', 'help'],
    ['Esc', 'close'],
  ],
  calendar: [
    ['N', 'new'],
    ['G', 'date'],
    ['F', 'free'],
    ['C', 'clash'],
    ['X', 'pick'],
    ['1 – 4', 'answer'],
    ['↵', 'open'],
    ['␣ ↑ ↓ ← →', 'move'],
    ['Ctrl Z', 'undo'],
    ['Ctrl Y', 'redo'],
  ],
  desk: [
    ['↑ ↓', 'rows'],
    ['1 – 4', 'step'],
    ['X', 'pick'],
    ['A', 'pickAll'],
    ['L', 'later'],
    ['P', 'pass'],
    ['U', 'undo'],
    ['O', 'open'],
  ],
  openings: [
    ['↑ ↓', 'times'],
    ['↵', 'take'],
    ['H', 'hold'],
    ['S', 'send'],
  ],
  messages: [
    ['↑ ↓', 'rows'],
    ['W', 'write'],
  ],
} as const;

/** The keys that are heard in one place, and what each does. */
export function KeyList({ where }: { where: keyof typeof KEYS_OF }) {
  const t = useTranslations('keys');
  return (
    <dl className={keysCss.list}>
      {KEYS_OF[where].map(([key, act]) => (
        <div key={act}>
          <dt>
            <kbd>{key}</kbd>
          </dt>
          <dd>{t(`acts.${act}`)}</dd>
        </div>
      ))}
    </dl>
  );
}
