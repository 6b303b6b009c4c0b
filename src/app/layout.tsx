import type { Metadata, Viewport } from 'next';
import { headers } from 'next/headers';
import type { ReactNode } from 'react';
import { languageOfRequest } from '@/server/datesOfRequest';
import { DatesIn } from '@/ui/dates';
import { Providers } from '@/features/shell/Providers';
import './globals.css';

export const metadata: Metadata = {
  title: { default: 'Idle Wander', template: '%s · Idle Wander' },
  description: 'Hear what your solo did to the chords.',
};
export const viewport: Viewport = { width: 'device-width', initialScale: 1, themeColor: '#12191b' };

export default async function Layout({ children }: { children: ReactNode }) {
  const nonce = (await headers()).get('x-nonce') ?? '';
  return (
    <html lang="en" suppressHydrationWarning>
      <body>
        <DatesIn language={await languageOfRequest()}>
          <Providers nonce={nonce}>{children}</Providers>
        </DatesIn>
      </body>
    </html>
  );
}
