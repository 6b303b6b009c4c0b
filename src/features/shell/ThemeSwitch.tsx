'use client';
import { useAppTheme } from './useAppTheme';
import { useIsAlive } from './useIsAlive';

/** Dusk for dim rooms, noon for light ones. The system's until one is chosen; the choice is kept in this browser. */
export function ThemeSwitch() {
  const { other, choose } = useAppTheme();
  // what the server drew cannot know the choice: until the page is alive the button names both
  const alive = useIsAlive();
  return (
    <button
      type="button"
      className="rounded py-1 whitespace-nowrap hover:text-ink sm:px-2"
      onClick={() => choose(other)}
      suppressHydrationWarning
    >
      {alive ? (
        <>
          {other === 'noon' ? 'Noon' : 'Dusk'}
          <span className="sr-only sm:not-sr-only sm:whitespace-nowrap"> theme</span>
        </>
      ) : (
        'Theme'
      )}
    </button>
  );
}
