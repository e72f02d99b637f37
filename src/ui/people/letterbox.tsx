'use client';
import { Fragment } from 'react';
import { useTranslations } from 'use-intl';
import { parseInstant } from '@/core/time/index.ts';
import pageCss from '../common/page.module.css';
import { clock, fullDay } from '../common/times.ts';

interface Letter {
  readonly at: string;
  readonly to: string;
  readonly subject: string;
  readonly text: string;
}

/** The letters that the sample organisation would have sent, to be followed as the one they were written to. */
export function Letterbox({ letters }: { letters: readonly Letter[] }) {
  const t = useTranslations('letterbox');
  return (
    <main className={`${pageCss.page} page-middle in-the-middle`}>
      <h1>{t('title')}</h1>
      <p className="soft above-3 below-6">{t('intro')}</p>
      {letters.length === 0 && <p>{t('none')}</p>}
      {letters.map((letter) => {
        const at = parseInstant(letter.at.replace(/\.\d+Z$/, 'Z')) ?? 0;
        return (
          <article key={`${letter.at} ${letter.to} ${letter.text}`} className={`${pageCss.card} below-6`}>
            <p className="small soft">
              {letter.to} · {fullDay(at)}, {clock(at, '24')}
            </p>
            <h2>{letter.subject}</h2>
            <p className="lines anywhere">
              <WithLinks text={letter.text} />
            </p>
          </article>
        );
      })}
    </main>
  );
}

/** A text with the addresses in it to press; they lead to this server, under whatever name it was reached by. */
function WithLinks({ text }: { text: string }) {
  return text.split(/(https?:\/\/\S+)/).map((part, i) =>
    /^https?:\/\//.test(part) ? (
      // biome-ignore lint/suspicious/noArrayIndexKey: the parts of one text never move
      <a key={i} href={new URL(part).pathname}>
        {part}
      </a>
    ) : (
      // biome-ignore lint/suspicious/noArrayIndexKey: the parts of one text never move
      <Fragment key={i}>{part}</Fragment>
    ),
  );
}
