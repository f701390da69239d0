import type { Metadata } from 'next';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import '@/ui/theme.css';
import { NONCE_HEADER } from '@/proxy';
import { Providers } from '@/screens/frame/providers';

export const metadata: Metadata = { title: { default: 'Gate Post', template: '%s · Gate Post' } };

/** Follows the system, or what was chosen last, before anything is drawn. */
const THEME = `try{var t=localStorage.getItem('gatepost-theme')||(matchMedia('(prefers-color-scheme: dark)').matches?'dark':'light');document.documentElement.dataset.theme=t}catch(e){}`;

export default async function RootLayout({ children }: { children: ReactNode }) {
  const nonce = (await headers()).get(NONCE_HEADER) ?? undefined;
  return (
    <html lang="en" suppressHydrationWarning>
      <head>
        <script nonce={nonce} dangerouslySetInnerHTML={{ __html: THEME }} />
      </head>
      <body className="font-sans antialiased">
        <Providers>{children}</Providers>
      </body>
    </html>
  );
}
