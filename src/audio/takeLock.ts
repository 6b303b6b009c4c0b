/** The browser-wide lock a running take holds. */
export const TAKE_LOCK = 'idle-wander-take';

const TURNS = 5;
const TURN_MS = 60;

/**
 * One take at a time in this browser, whichever tab. A lock that was just let go may take a moment to be free.
 * @returns how to let go of it; null where another tab holds it
 */
export async function takeLock(): Promise<(() => void) | null> {
  for (let turn = 0; turn < TURNS; turn++) {
    const release = await tryLock();
    if (release) return release;
    await new Promise((done) => setTimeout(done, TURN_MS));
  }
  return null;
}

function tryLock(): Promise<(() => void) | null> {
  if (!navigator.locks) return Promise.resolve(() => undefined);
  return new Promise((answer) => {
    void navigator.locks.request(TAKE_LOCK, { ifAvailable: true }, (lock) => {
      if (lock === null) return answer(null);
      return new Promise<void>((free) => answer(free));
    });
  });
}
