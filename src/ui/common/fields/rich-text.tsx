'use client';
import { lazy, Suspense } from 'react';

const Rendered = lazy(() => import('./rich-text-rendered.tsx').then((m) => ({ default: m.Rendered })));

/** Marks that make a text more than plain: without any of them nothing is fetched to show it. */
const MARKED = /[*_`#<>[\]]|^\s*(?:[-+]|\d+[.)])\s/m;

/** A text in Markdown, as it is meant; while what shows it is on its way, as it is written. What is HTML in it is shown as letters. */
export function RichText({ text }: { text: string }) {
  const plain = <span className="lines anywhere">{text}</span>;
  if (!MARKED.test(text)) return plain;
  return (
    <Suspense fallback={plain}>
      <Rendered text={text} />
    </Suspense>
  );
}
