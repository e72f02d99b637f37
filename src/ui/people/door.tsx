'use client';
import type { ReactNode } from 'react';
import { useTranslations } from 'use-intl';
import { Hills, Mark } from '../common/hills.tsx';
import doorCss from './door.module.css';

/** A page before anybody is signed in: what it is for, and one thing to do. */
export function Door({ title, text, children }: { title: string; text: string; children: ReactNode }) {
  const t = useTranslations('app');
  return (
    <div className={doorCss.door}>
      <main className={doorCss.left}>
        <p className="row large strong">
          <Mark size={32} /> {t('name')}
        </p>
        <h1>{title}</h1>
        <p className="soft">{text}</p>
        {children}
        <Hills />
      </main>
      <div className={doorCss.right} />
    </div>
  );
}
