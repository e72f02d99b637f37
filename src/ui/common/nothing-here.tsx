'use client';
import type { ReactNode } from 'react';
import { useTranslations } from 'use-intl';
import { Link } from './link.tsx';
import pageCss from './page.module.css';

/** What stands where nothing is, or where one may not see: both look alike. */
export function NothingHere({ children }: { children?: ReactNode }) {
  const t = useTranslations('missing');
  return (
    <div className={pageCss.state}>
      <h1>{t('title')}</h1>
      <p className="soft">{t('text')}</p>
      {children}
      <Link href="/">{t('back')}</Link>
    </div>
  );
}
