'use client';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useTranslations } from 'use-intl';
import { KEYS_OF, KeyList } from '../common/key-list.tsx';
import keysCss from './keys-dialog.module.css';

/** All keys of every screen, by where they are heard. */
export function KeysDialog({ onClose }: { onClose: () => void }) {
  const t = useTranslations('keys');
  const spine = useTranslations('spine');
  return (
    <Dialog open onClose={onClose} maxWidth="md" aria-labelledby="keys-title">
      <DialogTitle id="keys-title">{t('title')}</DialogTitle>
      <DialogContent className={keysCss.all}>
        {(Object.keys(KEYS_OF) as (keyof typeof KEYS_OF)[]).map((where) => (
          <section key={where} aria-label={where === 'everywhere' ? t('everywhere') : spine(where)}>
            <h3>{where === 'everywhere' ? t('everywhere') : spine(where)}</h3>
            <KeyList where={where} />
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
