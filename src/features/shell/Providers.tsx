'use client';
import { getNonce, setNonce } from 'get-nonce';
import { ThemeProvider } from 'next-themes';
import type { ReactNode } from 'react';
import { CommandCenter } from './commands/CommandCenter';
import { Notices } from './Notices';

/** Theme and the nonce that style elements made at run time must carry. */
export function Providers({ nonce, children }: { nonce: string; children: ReactNode }) {
  // a document keeps the policy it came with: later answers of the server carry other nonces
  if (typeof window === 'undefined' || !getNonce()) setNonce(nonce);
  return (
    <ThemeProvider
      attribute="data-theme"
      themes={['dusk', 'noon']}
      defaultTheme="dusk"
      enableSystem={false}
      nonce={nonce}
      disableTransitionOnChange
    >
      {children}
      <CommandCenter />
      <Notices />
    </ThemeProvider>
  );
}
