'use client';
import { useTranslations } from 'use-intl';
import { parseInstant } from '@/core/time/index.ts';
import pageCss from '../common/page.module.css';
import { clock, fullDay } from '../common/times.ts';
import messagesCss from './messages.module.css';

interface Traffic {
  readonly at: string;
  readonly way: 'received' | 'wrote';
  readonly who: string;
  readonly from: string;
  readonly sender: string | null;
  readonly to: string;
  readonly subject: string;
  readonly text: string;
  readonly method: string | null;
}

/** The mail between the sample organisation and the people outside it, as each of them reads it: the latest first, by whom it is with. */
export function Correspondents({ traffic }: { traffic: readonly Traffic[] }) {
  const t = useTranslations('correspondents');
  const people = [...new Set(traffic.map((one) => one.who))];
  return (
    <main className={`${pageCss.page} page-wide in-the-middle`}>
      <h1>{t('title')}</h1>
      <p className="soft above-3 below-6">
        {t('intro')} <a href="/letterbox">{t('letterbox')}</a>
      </p>
      {traffic.length === 0 && <p>{t('none')}</p>}
      {people.map((who) => (
        <section key={who} aria-label={who} className="below-7">
          <h2 className="below-4">{who}</h2>
          {traffic
            .filter((one) => one.who === who)
            .map((one, i) => {
              const at = parseInstant(one.at.replace(/\.\d+Z$/, 'Z')) ?? 0;
              return (
                <article
                  // biome-ignore lint/suspicious/noArrayIndexKey: the list is read once and never moves
                  key={i}
                  className={`${pageCss.card} ${messagesCss.message} below-4`}
                >
                  <p className="small soft">
                    {t(one.way, { from: one.from, to: one.to })}
                    {one.sender && ` · ${t('sender', { sender: one.sender })}`}
                    {one.method && ` · ${one.method}`} · {fullDay(at)}, {clock(at, '24')}
                  </p>
                  <h3>{one.subject}</h3>
                  <p className={messagesCss.text}>{one.text}</p>
                </article>
              );
            })}
        </section>
      ))}
    </main>
  );
}
