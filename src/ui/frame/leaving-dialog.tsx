import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import { useId } from 'react';
import { useTranslations } from 'use-intl';
import frameCss from './frame.module.css';

/** Names whom outside a meeting would go to, before it does; `onAnswer` says whether it may. */
export function LeavingDialog({ people, onAnswer }: { people: readonly string[]; onAnswer: (may: boolean) => void }) {
  const t = useTranslations();
  const title = useId();
  return (
    <Dialog open onClose={() => onAnswer(false)} aria-labelledby={title}>
      <div className={`stack gap-6 ${frameCss.form}`}>
        <h2 id={title}>{t('leaving.title')}</h2>
        <div className="stack gap-2">
          <p className="small soft">{t('leaving.help')}</p>
          <ul>
            {people.map((one) => (
              <li key={one}>{one}</li>
            ))}
          </ul>
        </div>
        <div className="row">
          <Button
            variant="contained"
            autoFocus
            // The key that sent the form, still held down, is no answer.
            onKeyDown={(event) => event.repeat && event.preventDefault()}
            onClick={() => onAnswer(true)}
          >
            {t('leaving.send')}
          </Button>
          <Button variant="outlined" onClick={() => onAnswer(false)}>
            {t('form.cancel')}
          </Button>
        </div>
      </div>
    </Dialog>
  );
}
