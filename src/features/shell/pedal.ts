import { actionOf, type Action, type Bindings } from './bindings';

const HOLD_MS = 700;
const DOUBLE_MS = 350;

/** What the pedal does now; what is left out, it does not do. */
export type Pedal = { readonly press?: () => void; readonly hold?: () => void; readonly double?: () => void };
export type Keys = Pedal & Partial<Record<Exclude<Action, 'press'>, () => void>>;

/** Tells press, double press and hold apart. A press waits for a second one only where a double does something. */
export class PedalReader {
  private timer: ReturnType<typeof setTimeout> | null = null;
  private down = false;
  private held = false;
  private waiting: ReturnType<typeof setTimeout> | null = null;
  constructor(private readonly pedal: () => Pedal) {}

  press(): void {
    if (this.down) return;
    this.down = true;
    this.held = false;
    this.timer = setTimeout(() => {
      this.held = true;
      this.forgetPress();
      this.pedal().hold?.();
    }, HOLD_MS);
  }

  release(): void {
    if (!this.down) return;
    this.down = false;
    if (this.timer) clearTimeout(this.timer);
    if (this.held) return;
    const { press, double } = this.pedal();
    if (!double) return press?.();
    if (this.waiting) {
      this.forgetPress();
      return double();
    }
    this.waiting = setTimeout(() => {
      this.waiting = null;
      this.pedal().press?.();
    }, DOUBLE_MS);
  }

  private forgetPress(): void {
    if (this.waiting) clearTimeout(this.waiting);
    this.waiting = null;
  }

  close(): void {
    if (this.timer) clearTimeout(this.timer);
    this.forgetPress();
  }
}

const TAKEN = 'input, select, textarea, button, a, [role=slider], [role=dialog], [contenteditable]';

/**
 * Listens to pedal, keys and MIDI pedals; typing in a field is left alone, and a key on a button is the button's.
 * @param keys asked anew at each stroke: what they do depends on the moment
 * @returns how to stop listening
 */
export function listenToKeys(bindings: Bindings, keys: () => Keys): () => void {
  const pedal = new PedalReader(keys);
  const actionFor = (event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey) return null;
    const target = event.target instanceof HTMLElement ? event.target.closest(TAKEN) : null;
    return target ? null : actionOf(bindings, event.key);
  };
  const onDown = (event: KeyboardEvent) => {
    const action = actionFor(event);
    if (action === null) return;
    if (action === 'press') {
      event.preventDefault();
      if (!event.repeat) pedal.press();
      return;
    }
    const work = keys()[action];
    if (!work || event.repeat) return;
    event.preventDefault();
    work();
  };
  const onUp = (event: KeyboardEvent) => { if (bindings.press.includes(event.key)) pedal.release(); };
  const onMidi = (event: Event) => ((event as CustomEvent<boolean>).detail ? pedal.press() : pedal.release());
  window.addEventListener('keydown', onDown);
  window.addEventListener('keyup', onUp);
  window.addEventListener(MIDI_PEDAL, onMidi);
  return () => {
    pedal.close();
    window.removeEventListener('keydown', onDown);
    window.removeEventListener('keyup', onUp);
    window.removeEventListener(MIDI_PEDAL, onMidi);
  };
}

/** Sent on the window when a MIDI pedal goes down (detail true) or up. */
export const MIDI_PEDAL = 'idle-wander-midi-pedal';

/**
 * What a MIDI message means for the pedal: controllers 64 to 69 (pedals, MIDI 1.0) and 80 to 83 (buttons) by their value, program changes and notes as
 * presses. Null where it means nothing.
 */
export function midiPedal([status = 0, first = 0, second = 0]: readonly number[]): boolean | 'tap' | null {
  const kind = status & 0xf0;
  if (kind === 0xb0 && ((first >= 64 && first <= 69) || (first >= 80 && first <= 83))) return second >= 64;
  if (kind === 0x90) return second > 0;
  if (kind === 0x80) return false;
  return kind === 0xc0 ? 'tap' : null;
}

/** Listens to every MIDI input there is or will be, where the browser has Web MIDI and the player said yes. */
export async function listenToMidi(): Promise<{ readonly inputs: () => string[]; readonly stop: () => void } | null> {
  if (typeof navigator === 'undefined' || !('requestMIDIAccess' in navigator)) return null;
  const access = await navigator.requestMIDIAccess().catch(() => null);
  if (!access) return null;
  const send = (down: boolean) => window.dispatchEvent(new CustomEvent(MIDI_PEDAL, { detail: down }));
  const onMessage = ({ data }: MIDIMessageEvent) => {
    const meaning = midiPedal([...(data ?? [])]);
    if (meaning === 'tap') { send(true); send(false); } else if (meaning !== null) send(meaning);
  };
  const attach = () => access.inputs.forEach((input) => (input.onmidimessage = onMessage));
  attach();
  access.onstatechange = attach;
  return {
    inputs: () => [...access.inputs.values()].map(({ name }) => name ?? 'MIDI input'),
    stop: () => { access.onstatechange = null; access.inputs.forEach((input) => (input.onmidimessage = null)); },
  };
}
