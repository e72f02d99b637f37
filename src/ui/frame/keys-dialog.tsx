'use client';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useTranslations } from 'use-intl';
import keysCss from './keys-dialog.module.css';

/** Every key, by where it is heard. The same key is the same act wherever it is. */
const KEYS = {
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

/** All keys of every screen, by where they are heard. */
export function KeysDialog({ onClose }: { onClose: () => void }) {
  const t = useTranslations('keys');
  const spine = useTranslations('spine');
  return (
    <Dialog open onClose={onClose} maxWidth="md" aria-labelledby="keys-title">
      <DialogTitle id="keys-title">{t('title')}</DialogTitle>
      <DialogContent className={keysCss.all}>
        {(Object.keys(KEYS) as (keyof typeof KEYS)[]).map((where) => (
          <section key={where} aria-label={where === 'everywhere' ? t('everywhere') : spine(where)}>
            <h3>{where === 'everywhere' ? t('everywhere') : spine(where)}</h3>
            <dl>
              {KEYS[where].map(([key, act]) => (
                <div key={act}>
                  <dt>
                    <kbd>{key}</kbd>
                  </dt>
                  <dd>{t(`acts.${act}`)}</dd>
                </div>
              ))}
            </dl>
          </section>
        ))}
      </DialogContent>
      <DialogActions>
        <Button variant="outlined" onClick={onClose}>
          {t('close')}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
