'use client';
import Button from '@mui/material/Button';
import { useTranslations } from 'use-intl';
import { dropDraft, useSavedDrafts } from '../common/fetched/saved-drafts.ts';
import { Link } from '../common/link.tsx';
import { firstName } from '../common/token.tsx';
import draftsBarCss from './drafts-bar.module.css';

/** What was typed and left without saving, each gone on with in one press. */
export function DraftsBar() {
  const t = useTranslations('kept');
  const drafts = useSavedDrafts();
  if (drafts.length === 0) return null;
  return (
    <section data-drafts className={draftsBarCss['drafts-bar']} aria-label={t('label')}>
      {drafts.map((d) => (
        <p key={d.key} className={`row who-${d.colour % 6}`} role="status">
          <span>
            {t('notSaved')} <b>{d.title || t('untitled')}</b>{' '}
            <span className="soft">{t('for', { name: firstName(d.owner) })}</span>
          </span>
          <Link href={d.href}>{t('goOn')}</Link>
          <Button variant="text" className="low" onClick={() => dropDraft(d.key)}>
            {t('drop')}
          </Button>
        </p>
      ))}
    </section>
  );
}
