import { readChart, timelineOf } from '@/core/chart';
import { fifthsOf, keyName, type Chord, type Key } from '@/core/music';
import type { RunTouch } from '@/core/neck';
import { scoreOf, type ScoreBar } from '@/core/notation';
import { elementAt, unwrap } from '@/core/shared';

const EIGHTHS_A_BAR = 8;
/** A key with more sharps or flats is written by accidentals alone. */
const MOST_SIGNS = 7;

/**
 * A run over a chord as bars of a page: in eighths, the last note held to the end of its bar. The chord spells the
 * notes; its symbol stands where the run is shown.
 */
export function runBars(touches: readonly RunTouch[], chord: Chord, key: Key | null): ScoreBar[] {
  const count = Math.ceil(touches.length / EIGHTHS_A_BAR);
  const isWritten = key !== null && Math.abs(fifthsOf(key)) <= MOST_SIGNS;
  const head = isWritten ? `key: ${keyName(key)}\n` : '';
  const bars = [chord.symbol, ...new Array<string>(count - 1).fill('%')].join(' | ');
  const chart = unwrap(readChart(`${head}| ${bars} |\n`));
  const notes = touches.map(({ midi }, index) => ({
    onsetBeat: index / 2,
    durationBeats: index === touches.length - 1 ? 4 * count - index / 2 : 0.5,
    midi,
  }));
  const written = scoreOf({
    timeline: timelineOf(chart, 100),
    notes,
    choruses: 1,
    swing: null,
    touchAt: (index) => elementAt(touches, index),
    chords: notes.map(() => chord),
  });
  return written.map((bar) => ({ ...bar, chords: [] }));
}
