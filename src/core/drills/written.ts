import type { PlayedNote } from '../analyse';
import { elementAt } from '../shared';
import { barByBar, patternIn, upAndDown } from './barPatterns';
import type { DrillContext } from './drillContext';
import type { Fill } from './musicBars';
import type { WrittenExample } from './recipe';
import { MOTIFS, motifs } from './statements';
import { traded } from './traded';

/**
 * Lines that are laid out bar by bar: patterns, arpeggios against scales, one phrase again and again, chords
 * against line.
 */
export function writtenLine(
  scene: DrillContext,
  written: WrittenExample,
  seed: number,
  fill: Fill,
): PlayedNote[] | null {
  switch (written.kind) {
    case 'pattern':
      return barByBar(scene, seed, (bar, from, end, way, late) =>
        patternIn(scene, bar, from, end, written.cell, way, late),
      );
    case 'up-and-down':
      return barByBar(scene, seed, (bar, from, end) => upAndDown(scene, bar, from, end, written.up));
    case 'motif':
      return motifs(scene, written.like ?? elementAt(MOTIFS, seed % MOTIFS.length), seed, fill);
    case 'trade':
      return traded(scene, written, seed, fill);
  }
}
