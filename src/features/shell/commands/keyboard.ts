import { MIDI_PEDAL, PedalReader } from '../pedal';
import { keysOf, type Bindings } from './bindings';
import { COMMANDS, PEDAL, type PedalGesture } from './catalogue';
import { isModifier, keyOfEvent } from './keys';
import { findCommand, pedalScrolls, type Command } from './registry';

/** Where letters are typed, or find an entry of a list. */
const TYPED = 'textarea, input, [contenteditable], [role=combobox], [role=listbox], [role=menu]';
const PRESSED = 'button, a, summary, [role=option]';
const STEPPED = '[role=slider], [role=radio], [role=tab]';
const SCROLLING = /^(?:Arrow|Page)/;

type Capture = (key: string) => void;
let capture: Capture | null = null;

/** Gives the next key to `take` alone: for choosing one in Settings. @returns how to let go */
export function captureKey(take: Capture): () => void {
  capture = take;
  return () => {
    if (capture === take) capture = null;
  };
}

/** Told of each press of the pedal, by the name of its key. */
type PedalListener = (key: string) => void;
const pedalListeners = new Set<PedalListener>();
export function onPedalKey(listener: PedalListener): () => void {
  pedalListeners.add(listener);
  return () => void pedalListeners.delete(listener);
}

const within = (event: KeyboardEvent, selector: string): boolean =>
  event.target instanceof HTMLElement && event.target.closest(selector) !== null;

/** What is focused keeps the keys it answers to itself. */
function isTaken(event: KeyboardEvent, key: string): boolean {
  if (key === 'Space' || key === 'Enter') return within(event, PRESSED);
  return SCROLLING.test(key) && within(event, STEPPED);
}

const gestureNow = (gesture: PedalGesture, isModal: boolean): Command | null =>
  findCommand((id) => COMMANDS[id].pedal === gesture, isModal);

const dialogIsOpen = (): boolean => document.querySelector('[role="dialog"], [role="alertdialog"]') !== null;

/**
 * The one listener to keys and pedals: gives each to the command that has it now.
 * @param bindings asked at each stroke
 * @param onReversed told when a pedal turns out to be closed at rest, and is read the other way round
 * @returns how to stop listening
 */
export function listenToKeyboard(bindings: () => Bindings, onReversed?: () => void): () => void {
  const pedal = new PedalReader(() => {
    const isModal = dialogIsOpen();
    const runOf = (gesture: PedalGesture) => gestureNow(gesture, isModal)?.run;
    const [press, hold, double] = [runOf('press'), runOf('hold'), runOf('double')];
    return { ...(press && { press }), ...(hold && { hold }), ...(double && { double }) };
  }, onReversed);

  const isPedalKey = (key: string): boolean =>
    keysOf(bindings(), PEDAL).includes(key) && !(pedalScrolls() && SCROLLING.test(key));

  const isPalette = (key: string): boolean => keysOf(bindings(), 'app.palette').includes(key);

  /** The command that has this key now, where it may be used. */
  const commandOf = (key: string, isTyping: boolean): Command | null =>
    findCommand(
      (id) => (!isTyping || COMMANDS[id].inFields === true) && keysOf(bindings(), id).includes(key),
      dialogIsOpen() && !isPalette(key),
    );

  const pressPedal = (event: KeyboardEvent, key: string) => {
    if (!event.repeat) for (const listener of pedalListeners) listener(key);
    const isModal = dialogIsOpen();
    if (!gestureNow('press', isModal) && !gestureNow('hold', isModal)) return;
    event.preventDefault();
    if (!event.repeat) pedal.press(key);
  };

  const onDown = (event: KeyboardEvent) => {
    if (event.defaultPrevented || event.altKey || isModifier(event.key)) return;
    const key = keyOfEvent(event);
    if (capture) {
      event.preventDefault();
      return capture(key);
    }
    const isTyping = within(event, TYPED);
    if (!isTyping && isTaken(event, key)) return;
    const command = commandOf(key, isTyping);
    if (command) {
      event.preventDefault();
      if (!event.repeat || COMMANDS[command.id].repeats) command.run();
    } else if (!isTyping && isPedalKey(key)) pressPedal(event, key);
  };
  const onUp = (event: KeyboardEvent) => pedal.release(keyOfEvent(event));
  const onBlur = () => pedal.forget();
  const onMidi = (event: Event) => {
    const isDown = (event as CustomEvent<boolean>).detail;
    if (isDown) for (const listener of pedalListeners) listener('MIDI pedal');
    if (isDown) pedal.press(MIDI_PEDAL);
    else pedal.release(MIDI_PEDAL);
  };
  window.addEventListener('keydown', onDown);
  window.addEventListener('keyup', onUp);
  window.addEventListener('blur', onBlur);
  window.addEventListener(MIDI_PEDAL, onMidi);
  return () => {
    pedal.close();
    window.removeEventListener('keydown', onDown);
    window.removeEventListener('keyup', onUp);
    window.removeEventListener('blur', onBlur);
    window.removeEventListener(MIDI_PEDAL, onMidi);
  };
}
