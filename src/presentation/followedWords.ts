import { typeset } from '@/core/music';
import type { FollowedBar } from '@/core/review';

const chords = (symbols: readonly string[]): string => symbols.map(typeset).join(' ');

/** Which chord of the two a bar followed: `bar 2, E♭7 or A7: you followed A7`. */
export function followedWords({ bar, written, laid, follows }: FollowedBar): string {
  const what: Readonly<Record<FollowedBar['follows'], string>> = {
    written: `you followed ${chords(written)}`,
    laid: `you followed ${chords(laid)}`,
    both: 'your notes fit both',
    neither: 'your notes fit neither',
    rest: 'you rested',
  };
  return `Bar ${bar}, ${chords(laid)} over ${chords(written)}: ${what[follows]}.`;
}

/** How often the changes laid over were followed. */
export function followedSummary(bars: readonly FollowedBar[]): string {
  const played = bars.filter(({ follows }) => follows !== 'rest');
  const laid = played.filter(({ follows }) => follows === 'laid').length;
  if (played.length === 0) return 'You rested wherever other chords were laid over.';
  return `You followed the chords laid over in ${laid} of ${played.length} bars.`;
}
