'use client';
import { useEffect, useState } from 'react';
import { useTranslations } from 'use-intl';
import { later } from '../common/later.tsx';
import finderCss from './finder.module.css';

const FinderDialog = later(() => import('./finder-dialog.tsx').then((m) => m.FinderDialog));

/** The door to the command palette: pressed, or Ctrl or Command with K. */
export function Finder() {
  const band = useTranslations('band');
  const [open, setOpen] = useState(false);
  // Once opened it stays, so that it closes as it should and what was looked up is still there.
  const [opened, setOpened] = useState(false);
  if (open && !opened) setOpened(true);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
        event.preventDefault();
        setOpen(true);
      }
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  return (
    <>
      <button type="button" className={`plain ${finderCss.finder}`} onClick={() => setOpen(true)}>
        <span className={finderCss.long}>{band('find')}</span>
        <span className={finderCss.short}>{band('findShort')}</span> <kbd>Ctrl K</kbd>
      </button>
      {opened && <FinderDialog open={open} setOpen={setOpen} />}
    </>
  );
}
