'use client';
import Link from 'next/link';
import { commandNow } from '../shell/commands/registry';

/** What this program is, the tour again, and whose work it stands on. */
export function About({ version }: { version: string }) {
  return (
    <>
      <div className="flex gap-2">
        <button type="button" className="quiet text-ink" onClick={() => commandNow('app.tour')?.run()}>
          Show me round
        </button>
        <Link href="/setup" className="quiet text-ink">
          Set up in one page
        </Link>
        <Link href="/guide" className="quiet text-ink">
          Guide
        </Link>
      </div>
      <p className="mt-2 max-w-[760px] leading-6 text-soft">
        Idle Wander {version}. It runs on this computer: nothing you play or write leaves it. It is built on
        open packages, fonts and sounds;{' '}
        <Link href="/settings/notices" className="underline hover:text-ink">
          their names and licences
        </Link>
        .
      </p>
    </>
  );
}
