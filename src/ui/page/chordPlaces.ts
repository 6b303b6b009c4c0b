import type { StemmableNote } from 'vexflow/core';
import type { ScoreBar } from '@/core/notation';
import type { Drawn } from './engraveNotes';

/** Where a chord's symbol stands in an engraved line, in pixels of its picture. */
export type ChordPlace = { readonly x: number; readonly y: number; readonly symbol: string };
/** A bar and what is drawn of it. */
export type DrawnBar = { readonly bar: ScoreBar; readonly drawn: readonly Drawn[] };

/** Room that the last note of a bar takes, in pixels. */
const LAST_NOTE = 48;

/** Chords where they begin, each once until another comes; @param noteOf the head that was drawn */
export function chordPlaces(
  drawnBars: readonly DrawnBar[],
  y: number,
  noteOf: (one: Drawn) => StemmableNote,
): readonly ChordPlace[] {
  const places: ChordPlace[] = [];
  for (const { bar, drawn } of drawnBars)
    for (const { at, chord } of bar.chords) {
      const symbol = chord?.symbol ?? 'N.C.';
      const place = drawn.findIndex(({ entry }) => entry.at + entry.head.size > at);
      const head = drawn[place];
      if (!head || symbol === places.at(-1)?.symbol) continue;
      const x = noteOf(head).getAbsoluteX();
      const following = drawn[place + 1];
      const next = following ? noteOf(following).getAbsoluteX() : x + LAST_NOTE;
      // a chord under a note that is held stands as far along it as it comes
      const along = Math.max(0, at - head.entry.at) / head.entry.head.size;
      places.push({ x: x - 2 + along * (next - x), y, symbol });
    }
  return places;
}
