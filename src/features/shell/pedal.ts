const HOLD_MS = 700;
const DOUBLE_MS = 350;

/** What the pedal does now; what is left out, it does not do. */
export type Pedal = { readonly press?: () => void; readonly hold?: () => void; readonly double?: () => void };

/**
 * A key that is down for longer than this is not held on purpose: a foot rests on it, its key-up went to
 * another window, or it is a pedal
 * whose switch is closed at rest.
 */
const LONGEST_HOLD_MS = 3_000;
/** So long a pedal of that kind is up when it is pressed. */
const LONGEST_TAP_MS = 1_000;
/** As often it must look like one before it is read as one. */
const SURE_OF_REVERSED = 2;

/** What is known of one key or pedal. */
type Switch = { downAt: number | null; upAt: number; likelyReversed: number; reversed: boolean };

/**
 * Tells press, double press and hold apart, by when the key is let go: a key whose key-up never comes does
 * nothing. A press waits for a
 * second one only where a double does something. A pedal whose switch is closed at rest is recognised and
 * read the other way round.
 */
export class PedalReader {
  private readonly switches = new Map<string, Switch>();
  private waiting: ReturnType<typeof setTimeout> | null = null;

  /**
   * @param pedal what it does now
   * @param onReversed told once for each pedal that is read the other way round from now on
   */
  constructor(
    private readonly pedal: () => Pedal,
    private readonly onReversed: () => void = () => undefined,
    private readonly now: () => number = () => Date.now(),
  ) {}

  /** A key goes down; repeats of the same key count once. */
  press(key: string): void {
    const one = this.switchOf(key);
    if (one.reversed) return this.letGo(one);
    if (one.downAt !== null) return;
    const up = this.now() - one.upAt;
    if (one.likelyReversed > 0 && up > LONGEST_TAP_MS) one.likelyReversed = 0;
    one.downAt = this.now();
  }

  release(key: string): void {
    const one = this.switchOf(key);
    if (one.reversed) {
      one.downAt = this.now();
      return;
    }
    if (one.downAt === null) return;
    if (this.now() - one.downAt > LONGEST_HOLD_MS) this.suspect(one);
    else this.letGo(one);
    one.upAt = this.now();
    if (!one.reversed) one.downAt = null;
  }

  /** The window lost the keyboard: key-ups that come later belong to nobody. */
  forget(): void {
    for (const one of this.switches.values()) one.downAt = null;
    this.forgetPress();
  }

  private switchOf(key: string): Switch {
    const known = this.switches.get(key) ?? {
      downAt: null,
      upAt: -Infinity,
      likelyReversed: 0,
      reversed: false,
    };
    this.switches.set(key, known);
    return known;
  }

  private suspect(one: Switch): void {
    one.likelyReversed++;
    if (one.likelyReversed < SURE_OF_REVERSED) return;
    one.reversed = true;
    // this key-up was the pedal being pressed
    one.downAt = this.now();
    this.onReversed();
  }

  private letGo(one: Switch): void {
    if (one.downAt === null) return;
    const held = this.now() - one.downAt;
    one.downAt = null;
    if (held > LONGEST_HOLD_MS) return;
    if (held >= HOLD_MS) {
      this.forgetPress();
      this.pedal().hold?.();
    } else this.tap();
  }

  private tap(): void {
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
    this.forgetPress();
  }
}

/** Sent on the window when a MIDI pedal goes down (detail true) or up. */
export const MIDI_PEDAL = 'idle-wander-midi-pedal';

/**
 * What a MIDI message means for the pedal: controllers 64 to 69 (pedals, MIDI 1.0) and 80 to 83 (buttons)
 * by their value, program changes and notes as
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
export async function listenToMidi(): Promise<{
  readonly inputs: () => string[];
  readonly stop: () => void;
} | null> {
  if (typeof navigator === 'undefined' || !('requestMIDIAccess' in navigator)) return null;
  const access = await navigator.requestMIDIAccess().catch(() => null);
  if (!access) return null;
  const send = (down: boolean) => window.dispatchEvent(new CustomEvent(MIDI_PEDAL, { detail: down }));
  const onMessage = ({ data }: MIDIMessageEvent) => {
    const meaning = midiPedal([...(data ?? [])]);
    if (meaning === 'tap') {
      send(true);
      send(false);
    } else if (meaning !== null) send(meaning);
  };
  const attach = () => access.inputs.forEach((input) => (input.onmidimessage = onMessage));
  attach();
  access.onstatechange = attach;
  return {
    inputs: () => [...access.inputs.values()].map(({ name }) => name ?? 'MIDI input'),
    stop: () => {
      access.onstatechange = null;
      access.inputs.forEach((input) => (input.onmidimessage = null));
    },
  };
}
