import Link from 'next/link';
import type { ReactNode } from 'react';
import { PanelButtons } from './commands/PanelButtons';
import { ThemeSwitch } from './ThemeSwitch';

const PLACES = [
  ['Today', '/'],
  ['Charts', '/charts'],
  ['Study', '/study'],
  ['Record', '/record'],
  ['Takes', '/takes'],
  ['Drills', '/drills'],
  ['Phrases', '/phrases'],
  ['Progress', '/progress'],
] as const;

type Props = {
  place: (typeof PLACES)[number][0] | 'Settings' | 'Guide';
  side?: ReactNode;
  footer?: ReactNode;
  children: ReactNode;
};

/** The frame of every near screen: where you are above, what you can do now below. */
export function Shell({ place, side, footer, children }: Props) {
  return (
    <div className="flex min-h-dvh flex-col">
      <header className="relative mx-4 flex min-h-14 shrink-0 flex-wrap items-center gap-x-3.5 py-1.5 text-soft sm:mx-8 sm:gap-x-6 lg:h-14 lg:flex-nowrap lg:py-0 print:hidden">
        <Link href="/" className="mr-2 hidden font-[680] whitespace-nowrap text-ink lg:block">
          Idle Wander
        </Link>
        <nav aria-label="Screens" className="contents gap-3.5 sm:flex lg:gap-6">
          {PLACES.map(([name, href]) => (
            <Link
              key={name}
              href={href}
              aria-current={name === place ? 'page' : undefined}
              className={
                name === place
                  ? 'border-y-2 border-t-transparent border-b-now py-1 font-semibold text-ink'
                  : 'border-y-2 border-transparent py-1 hover:text-ink'
              }
            >
              {name}
            </Link>
          ))}
        </nav>
        <div className="ml-auto flex shrink-0 items-center gap-3.5 text-sm whitespace-nowrap text-dim sm:gap-4 lg:min-w-0 lg:shrink">
          {side && <div className="flex min-w-0 gap-3.5 sm:gap-4 [&>*]:truncate">{side}</div>}
          <Link
            href="/settings"
            aria-current={place === 'Settings' ? 'page' : undefined}
            className={
              place === 'Settings'
                ? 'border-y-2 border-t-transparent border-b-now py-1 font-semibold text-ink'
                : 'border-y-2 border-transparent py-1 hover:text-ink'
            }
          >
            Settings
          </Link>
          <PanelButtons isTight={Boolean(side)} />
          <ThemeSwitch />
        </div>
      </header>
      <main className="flex grow flex-col">{children}</main>
      {footer && (
        <footer className="sticky bottom-0 print:hidden z-10 flex min-h-14 shrink-0 flex-wrap items-center gap-x-6 gap-y-2 border-t border-line bg-panel px-4 py-2 text-[15px] text-soft sm:px-8">
          {footer}
        </footer>
      )}
    </div>
  );
}
