import type { Metadata } from 'next';
import type { ReactNode } from 'react';
import '@/ui/theme.css';
import { Providers } from '@/screens/frame/providers';

export const metadata: Metadata = { title: { default: 'Gate Post', template: '%s · Gate Post' } };

/** Follows the system, or what was chosen last, before anything is drawn. */
const THEME = `try{var t=localStorage.getItem('gatepost-theme')||(matchMedia('(prefers-color-scheme: dark)').matches?'dark':'light');document.documentElement.dataset.theme=t}catch(e){}`;

export default function RootLayout({ children }: { children: ReactNode }) {
  return (
    <html lang="en" suppressHydrationWarning>
      <head>
        <script dangerouslySetInnerHTML={{ __html: THEME }} />
      </head>
      <body className="font-sans antialiased">
        <Providers>{children}</Providers>
      </body>
    </html>
  );
}
