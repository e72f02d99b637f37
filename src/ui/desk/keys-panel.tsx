import Button from '@mui/material/Button';
import { useTranslations } from 'use-intl';
import { KeyList } from '../common/key-list.tsx';
import deskCss from './desk.module.css';

/** All keys of the Desk, beside its rows. */
export function KeysPanel({ onClose }: { onClose: () => void }) {
  const t = useTranslations('desk');
  return (
    <aside className={deskCss.panel} aria-label={t('keysTitle')}>
      <h2>{t('keysTitle')}</h2>
      <KeyList where="desk" />
      <KeyList where="everywhere" />
      <Button variant="outlined" onClick={onClose}>
        {t('panel.close')}
      </Button>
    </aside>
  );
}
