import Button from '@mui/material/Button';
import { useTranslations } from 'use-intl';
import deskCss from './desk.module.css';

/** All keys of the Desk. */
export function KeysPanel({ onClose }: { onClose: () => void }) {
  const t = useTranslations('desk');
  const keys = [
    ['↑ ↓', 'move'],
    ['1 – 4', 'do'],
    ['X', 'pick'],
    ['L', 'later'],
    ['P', 'pass'],
    ['U', 'undo'],
    ['O', 'open'],
    ['?', 'help'],
  ] as const;
  return (
    <aside className={deskCss.panel} aria-label={t('keysTitle')}>
      <h2>{t('keysTitle')}</h2>
      <dl className={deskCss.keys}>
        {keys.map(([key, what]) => (
          <div key={what} style={{ display: 'contents' }}>
            <dt>
              <kbd>{key}</kbd>
            </dt>
            <dd>{t(`keys.${what}`)}</dd>
          </div>
        ))}
      </dl>
      <Button variant="outlined" onClick={onClose}>
        {t('panel.close')}
      </Button>
    </aside>
  );
}
