'use client';
import type { ReactNode } from 'react';
import { IntlProvider } from 'use-intl';
import { type Language, LOCALES } from '@/messages/languages.ts';
import type { Texts } from '@/messages/texts.ts';
import { speak } from './language.ts';

/** What is drawn within speaks a language whose texts are here. */
export function SpokenIn(props: { language: Language; messages: Texts; children: ReactNode }) {
  speak(props.language);
  return (
    <IntlProvider locale={LOCALES[props.language]} messages={props.messages} timeZone="UTC">
      {props.children}
    </IntlProvider>
  );
}
