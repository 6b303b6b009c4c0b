/** Keys that a foot pedal sends. */
const PEDAL_KEYS = new Set([' ', 'PageUp', 'PageDown', 'ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown']);
const HOLD_MS = 700;

type Pedal = { press: () => void; hold: () => void };

/** Listens for press and hold of Space or a pedal; typing in a field is left alone. Returns how to stop listening. */
export function listenToPedal({ press, hold }: Pedal): () => void {
  let down: { timer: ReturnType<typeof setTimeout>; held: boolean } | null = null;
  const isOurs = (event: KeyboardEvent) =>
    PEDAL_KEYS.has(event.key) && !(event.target instanceof HTMLElement && event.target.closest('input, select, textarea, button, a, [role=slider]'));
  const onDown = (event: KeyboardEvent) => {
    if (!isOurs(event)) return;
    event.preventDefault();
    if (event.repeat || down) return;
    const state = { held: false, timer: setTimeout(() => { state.held = true; hold(); }, HOLD_MS) };
    down = state;
  };
  const onUp = (event: KeyboardEvent) => {
    if (!down || !PEDAL_KEYS.has(event.key)) return;
    clearTimeout(down.timer);
    const wasHeld = down.held;
    down = null;
    if (!wasHeld) press();
  };
  window.addEventListener('keydown', onDown);
  window.addEventListener('keyup', onUp);
  return () => {
    if (down) clearTimeout(down.timer);
    window.removeEventListener('keydown', onDown);
    window.removeEventListener('keyup', onUp);
  };
}
