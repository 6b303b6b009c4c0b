import Link from 'next/link';

/** What this program is, and whose work it stands on. */
export function About({ version }: { version: string }) {
  return (
    <p className="max-w-[760px] leading-6 text-soft">
      Idle Wander {version}. It runs on this computer: nothing you play or write leaves it. It is built on
      open packages, fonts and sounds;{' '}
      <Link href="/settings/notices" className="underline hover:text-ink">
        their names and licences
      </Link>
      .
    </p>
  );
}
