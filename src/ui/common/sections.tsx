'use client';
import { type ReactNode, useEffect, useRef, useState } from 'react';
import { useTranslations } from 'use-intl';
import pageCss from './page.module.css';
import sectionsCss from './sections.module.css';

interface Section {
  readonly id: string;
  readonly name: string;
}

/** A long page with its sections, by their headings, as a list at the left: the one that is read is marked, and each is a press away. */
export function Sections({ children }: { children: ReactNode }) {
  const t = useTranslations('common');
  const body = useRef<HTMLDivElement>(null);
  const [sections, setSections] = useState<readonly Section[]>([]);
  const [read, setRead] = useState<string | null>(null);
  useEffect(() => {
    const box = body.current;
    if (!box) return;
    const list = () => {
      const found = [...box.querySelectorAll('h2')].map((heading, i) => {
        heading.id ||= `section-${i}`;
        return { id: heading.id, name: heading.textContent ?? '' };
      });
      setSections((was) => (JSON.stringify(was) === JSON.stringify(found) ? was : found));
    };
    const mark = () => {
      const top = box.getBoundingClientRect().top + 80;
      const passed = [...box.querySelectorAll('h2')].filter((heading) => heading.getBoundingClientRect().top <= top);
      const scrolls = box.scrollHeight > box.clientHeight + 2;
      const end = scrolls && box.scrollTop + box.clientHeight >= box.scrollHeight - 2;
      // Where all of it is on the screen, none is read more than another.
      setRead(scrolls ? ((end ? [...box.querySelectorAll('h2')] : passed).at(-1)?.id ?? null) : null);
    };
    list();
    mark();
    const watch = new MutationObserver(list);
    watch.observe(box, { childList: true, subtree: true });
    box.addEventListener('scroll', mark, { passive: true });
    return () => {
      watch.disconnect();
      box.removeEventListener('scroll', mark);
    };
  }, []);
  return (
    <div className={sectionsCss.sections}>
      <nav className={sectionsCss.list} aria-label={t('sections')}>
        {sections.map(({ id, name }) => (
          <a
            key={id}
            href={`#${id}`}
            aria-current={id === read ? 'true' : undefined}
            onClick={(event) => {
              event.preventDefault();
              document.getElementById(id)?.scrollIntoView({ block: 'start' });
            }}
          >
            {name}
          </a>
        ))}
      </nav>
      <div ref={body} className={`${pageCss.page} ${sectionsCss.body}`}>
        {children}
      </div>
    </div>
  );
}
