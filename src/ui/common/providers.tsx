'use client';
import GlobalStyles from '@mui/material/GlobalStyles';
import { ThemeProvider } from '@mui/material/styles';
import { AppRouterCacheProvider } from '@mui/material-nextjs/v16-appRouter';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { type ReactNode, useState } from 'react';
import { IntlProvider } from 'use-intl';
import { type Language, LOCALES } from '@/messages/languages.ts';
import type { Texts } from '@/messages/texts.ts';
import { variables } from '../colours.ts';
import { theme } from '../theme.ts';
import { speak } from './language.ts';

const COLOURS = <GlobalStyles styles={variables} />;

/** What is drawn within speaks a language: its texts and its dates. */
export function Spoken(props: { language: Language; messages: Texts; children: ReactNode }) {
  speak(props.language);
  return (
    <IntlProvider locale={LOCALES[props.language]} messages={props.messages} timeZone="UTC">
      {props.children}
    </IntlProvider>
  );
}

/** Everything a screen stands on: styles under the page's nonce, the theme, the texts, and what was fetched. */
export function Providers(props: { nonce: string; language: Language; messages: Texts; children: ReactNode }) {
  const [client] = useState(
    () => new QueryClient({ defaultOptions: { queries: { retry: 1, refetchOnWindowFocus: true, staleTime: 5_000 } } }),
  );
  return (
    <AppRouterCacheProvider options={{ nonce: props.nonce, enableCssLayer: false }}>
      <ThemeProvider theme={theme} defaultMode="system">
        {COLOURS}
        <Spoken language={props.language} messages={props.messages}>
          <QueryClientProvider client={client}>{props.children}</QueryClientProvider>
        </Spoken>
      </ThemeProvider>
    </AppRouterCacheProvider>
  );
}
