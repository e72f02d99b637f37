'use client';
import GlobalStyles from '@mui/material/GlobalStyles';
import { ThemeProvider } from '@mui/material/styles';
import { AppRouterCacheProvider } from '@mui/material-nextjs/v16-appRouter';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { type ReactNode, useState } from 'react';
import type { Language } from '@/messages/languages.ts';
import { variables } from '../colours.ts';
import { theme } from '../theme.ts';
import { Spoken } from './spoken.tsx';

const COLOURS = <GlobalStyles styles={variables} />;

/** Everything a screen stands on: styles under the page's nonce, the theme, the texts, and what was fetched. */
export function Providers(props: { nonce: string; language: Language; children: ReactNode }) {
  const [client] = useState(
    () => new QueryClient({ defaultOptions: { queries: { retry: 1, refetchOnWindowFocus: true, staleTime: 5_000 } } }),
  );
  return (
    <AppRouterCacheProvider options={{ nonce: props.nonce, enableCssLayer: false }}>
      <ThemeProvider theme={theme} defaultMode="system">
        {COLOURS}
        <Spoken language={props.language}>
          <QueryClientProvider client={client}>{props.children}</QueryClientProvider>
        </Spoken>
      </ThemeProvider>
    </AppRouterCacheProvider>
  );
}
