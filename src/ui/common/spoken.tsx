'use client';
import dynamic from 'next/dynamic';
import type { ReactNode } from 'react';
import type { Language } from '@/messages/languages.ts';

/** A language's texts are a script of their own: a browser fetches those of one language, once, and no page carries them. */
const IN = {
  en: dynamic(() => import('./spoken-english.tsx').then((m) => m.English)),
  pt: dynamic(() => import('./spoken-portuguese.tsx').then((m) => m.Portuguese)),
};

/** What is drawn within speaks a language: its texts and its dates. */
export function Spoken({ language, children }: { language: Language; children: ReactNode }) {
  const Within = IN[language];
  return <Within>{children}</Within>;
}
