'use client';
import { getNonce, setNonce } from 'get-nonce';
import { ThemeProvider } from 'next-themes';
import type { ReactNode } from 'react';
import { CommandCenter } from './commands/CommandCenter';
import { Notices } from './Notices';
import { Tour } from './tour/Tour';
import { SHOWN } from './useAppTheme';

/** Theme and the nonce that style elements made at run time must carry. */
export function Providers({ nonce, children }: { nonce: string; children: ReactNode }) {
  // a document keeps the policy it came with: later answers of the server carry other nonces
  if (typeof window === 'undefined' || !getNonce()) setNonce(nonce);
  return (
    <ThemeProvider
      attribute="data-theme"
      themes={Object.keys(SHOWN)}
      value={{ ...SHOWN }}
      defaultTheme="system"
      enableSystem
      enableColorScheme={false}
      nonce={nonce}
      disableTransitionOnChange
    >
      {children}
      <CommandCenter />
      <Notices />
      <Tour />
    </ThemeProvider>
  );
}
