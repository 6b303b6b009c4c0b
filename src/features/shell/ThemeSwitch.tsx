'use client';
import { useTheme } from 'next-themes';
import { useIsAlive } from './useIsAlive';

/** Dusk for dim rooms, noon for light ones. The choice is kept in this browser. */
export function ThemeSwitch() {
  const { resolvedTheme, setTheme } = useTheme();
  // what the server drew cannot know the choice: until the page is alive the button names both
  const alive = useIsAlive();
  const next = resolvedTheme === 'noon' ? 'dusk' : 'noon';
  return (
    <button
      type="button"
      className="rounded py-1 whitespace-nowrap hover:text-ink sm:px-2"
      onClick={() => setTheme(next)}
      suppressHydrationWarning
    >
      {alive ? (
        <>
          {next === 'noon' ? 'Noon' : 'Dusk'}
          <span className="sr-only sm:not-sr-only"> theme</span>
        </>
      ) : (
        'Theme'
      )}
    </button>
  );
}
