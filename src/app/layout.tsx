import '@fontsource-variable/inter';
import '@fontsource/ibm-plex-mono/400.css';
import '@fontsource/ibm-plex-mono/500.css';
import './globals.css';
import type { Metadata } from 'next';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import { holdEarlyClicks } from '@/ui/frame/early-clicks';

export const metadata: Metadata = {
  title: { default: 'Netting', template: '%s · Netting' },
  description: 'Record once, sell everywhere, never twice',
};

// Before anything is painted, so that nothing flashes: the theme that was chosen, or else the system's.
const themeScript = `var t;try{t=localStorage.getItem('netting.theme')}catch(e){}document.documentElement.dataset.theme=t||(matchMedia('(prefers-color-scheme: dark)').matches?'night-quay':'quay')`;

export default async function RootLayout({ children }: { children: ReactNode }) {
  const nonce = (await headers()).get('x-nonce') ?? undefined;
  return (
    <html lang="en" suppressHydrationWarning>
      <head>
        {/* Browsers hide the number from whoever asks for it afterwards. */}
        <script
          nonce={nonce}
          suppressHydrationWarning
          dangerouslySetInnerHTML={{ __html: `${themeScript};${holdEarlyClicks}` }}
        />
      </head>
      <body>{children}</body>
    </html>
  );
}
