'use client';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { later } from '../common/later.tsx';
import frameCss from './frame.module.css';
import type { Way } from './sections-menu.tsx';

const SectionsMenu = later(() => import('./sections-menu.tsx').then((m) => m.SectionsMenu));

/** On a phone, the way to the sections that its bar has no room for. */
export function MoreSections(props: { sections: readonly Way[]; settings: Way; here: boolean }) {
  const { sections, settings, here } = props;
  const t = useTranslations('spine');
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  return (
    <>
      <button
        type="button"
        className={`plain ${frameCss.more}`}
        aria-haspopup="menu"
        aria-current={here ? undefined : 'true'}
        onClick={(event) => setAnchor(event.currentTarget)}
      >
        {t('more')}
      </button>
      {anchor && <SectionsMenu ways={[...sections, settings]} anchor={anchor} onClose={() => setAnchor(null)} />}
    </>
  );
}
