import '@fontsource-variable/hanken-grotesk/wght.css';
import InitColorSchemeScript from '@mui/material/InitColorSchemeScript';
import type { Metadata, Viewport } from 'next';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import messages from '@/messages/en/index.ts';
import { Providers } from '@/ui/common/providers.tsx';
import '@/ui/base.css';

export const metadata: Metadata = { title: 'Paramo', description: messages.signIn.tag, robots: { index: false } };
export const viewport: Viewport = { width: 'device-width', initialScale: 1 };

export default async function RootLayout({ children }: { children: ReactNode }) {
  const nonce = (await headers()).get('x-nonce') ?? '';
  return (
    <html lang="en" suppressHydrationWarning>
      <body>
        <InitColorSchemeScript attribute="data-theme" defaultMode="system" nonce={nonce} />
        <Providers nonce={nonce} messages={messages}>
          {children}
        </Providers>
      </body>
    </html>
  );
}
