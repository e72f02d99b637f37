import '@fontsource-variable/hanken-grotesk/wght.css';
import InitColorSchemeScript from '@mui/material/InitColorSchemeScript';
import type { Metadata, Viewport } from 'next';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import { TEXTS } from '@/messages/texts.ts';
import { Providers } from '@/ui/common/providers.tsx';
import { languageHere } from './language-here.ts';
import '@/ui/base.css';
import '@/ui/layout.css';

export const metadata: Metadata = { title: 'Paramo', description: TEXTS.en.signIn.tag, robots: { index: false } };
export const viewport: Viewport = { width: 'device-width', initialScale: 1 };

export default async function RootLayout({ children }: { children: ReactNode }) {
  const language = await languageHere();
  const nonce = (await headers()).get('x-nonce') ?? '';
  return (
    <html lang={language} suppressHydrationWarning>
      <body>
        <InitColorSchemeScript attribute="data-theme" defaultMode="system" nonce={nonce} />
        <Providers nonce={nonce} language={language}>
          {children}
        </Providers>
      </body>
    </html>
  );
}
