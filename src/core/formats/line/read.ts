import { LIMITS } from '../../contracts';
import type { PlayedNote } from '../../analyse';
import { accepted, refused, type Outcome, type Slur, elementAt } from '../../shared';
import { attribute, childrenOf, nameOf, parseScore, partsOf, textAt, type XmlNode } from '../musicxml/tree';

const STEPS: Record<string, number> = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 };

/**
 * The line of a MusicXML score (partwise): the first part that holds pitches, ties joined, in beats of its
 * meters from the first full
 * measure; `attack` and `release` move a note to where it was played. Grace notes are short notes before
 * the beat; hammer-ons and pull-offs are read where they end.
 * Source: MusicXML 4.0, elements `note`, `backup`, `forward`.
 */
export function readLineMusicXml(xml: string): Outcome<PlayedNote[]> {
  const score = parseScore(xml);
  if (!score.ok) return score;
  const part = partsOf(score.value).find((measures) =>
    measures.some((measure) =>
      measure.some(
        (node) => nameOf(node) === 'note' && childrenOf(node).some((child) => nameOf(child) === 'pitch'),
      ),
    ),
  );
  if (!part)
    return refused({
      code: 'musicxml.no-notes',
      message: 'No part of this score holds notes.',
      suggestion: 'Export the part with the line in it.',
    });
  return new LineReading().read(part);
}

type Open = { onsetBeat: number; durationBeats: number; midi: number; attack?: Slur };

/** As far as a note of a file of notes may lie, in beats. */
const LONGEST = 1_000_000;
const isInReach = ({ onsetBeat, durationBeats }: Open): boolean =>
  Math.abs(onsetBeat) <= LONGEST && durationBeats <= LONGEST;

class LineReading {
  private divisions = 1;
  private beatQuarters = 1;
  private readonly notes: Open[] = [];
  private readonly tied = new Map<number, Open>();

  read(measures: readonly (readonly XmlNode[])[]): Outcome<PlayedNote[]> {
    let start = 0;
    let lead = 0;
    for (const [number, nodes] of measures.entries()) {
      const { length, full } = this.measure(nodes, start);
      // a first measure that is not full is a pickup: beat 0 is the next one's
      if (number === 0 && length < full - 1e-6) lead = length;
      start += length;
      if (this.notes.length > LIMITS.notes.musicxml)
        return refused({
          code: 'musicxml.too-long',
          message: `This line has more than ${LIMITS.notes.musicxml} notes.`,
        });
    }
    if (!this.notes.every(isInReach))
      return refused({
        code: 'musicxml.too-long',
        message: `This line is longer than ${LONGEST.toLocaleString('en')} beats.`,
      });
    return accepted(
      this.notes
        .map((note) => ({ ...note, onsetBeat: note.onsetBeat - lead }))
        .sort((a, b) => a.onsetBeat - b.onsetBeat || a.midi - b.midi),
    );
  }

  /** @returns its length and that of a full one, in beats */
  private measure(nodes: readonly XmlNode[], start: number): { length: number; full: number } {
    let [at, last, furthest, graces] = [0, 0, 0, 0];
    let full = 0;
    const beats = (divisions: number) => divisions / this.divisions / this.beatQuarters;
    for (const node of nodes) {
      const inside = childrenOf(node);
      const duration = Number(textAt(inside, 'duration')) || 0;
      switch (nameOf(node)) {
        case 'attributes':
          this.attributes(inside);
          break;
        case 'backup':
          at -= duration;
          break;
        case 'forward':
          at += duration;
          break;
        case 'note': {
          const isChord = inside.some((child) => nameOf(child) === 'chord');
          const isGrace = inside.some((child) => nameOf(child) === 'grace');
          const place = isChord ? last : at;
          if (isGrace) graces++;
          else if (!isChord) {
            last = at;
            at += duration;
            graces = 0;
          }
          const midi = pitchOf(inside);
          if (midi !== null)
            this.note(
              node,
              inside,
              midi,
              start + beats(place) - (isGrace ? 0.1 * graces : 0),
              isGrace ? 0.1 : beats(duration),
              beats,
            );
        }
      }
      furthest = Math.max(furthest, at);
      full = this.barBeats;
    }
    return { length: beats(furthest) || full, full };
  }

  private barBeats = 4;

  private note(
    node: XmlNode,
    inside: readonly XmlNode[],
    midi: number,
    onsetBeat: number,
    durationBeats: number,
    beats: (divisions: number) => number,
  ): void {
    const ties = inside.filter((child) => nameOf(child) === 'tie').map((child) => attribute(child, 'type'));
    const attack = beats(Number(attribute(node, 'attack')) || 0);
    const release = beats(Number(attribute(node, 'release')) || 0);
    const open = ties.includes('stop') ? this.tied.get(midi) : undefined;
    if (open) open.durationBeats = onsetBeat + durationBeats + release - open.onsetBeat;
    else
      this.notes.push({
        onsetBeat: onsetBeat + attack,
        durationBeats: Math.max(0.01, durationBeats - attack + release),
        midi,
        ...attackOf(inside),
      });
    const note = open ?? elementAt(this.notes, this.notes.length - 1);
    if (ties.includes('start')) this.tied.set(midi, note);
    else this.tied.delete(midi);
  }

  private attributes(nodes: readonly XmlNode[]): void {
    this.divisions = Number(textAt(nodes, 'divisions')) || this.divisions;
    const [upper, lower] = [
      Number(textAt(nodes, 'time', 'beats')),
      Number(textAt(nodes, 'time', 'beat-type')),
    ];
    if (!(upper > 0 && lower > 0)) return;
    const compound = lower === 8 && [6, 9, 12].includes(upper);
    this.beatQuarters = (4 / lower) * (compound ? 3 : 1);
    this.barBeats = compound ? upper / 3 : upper;
  }
}

/** Begun by the fretting hand, where the score ends a hammer-on or a pull-off on this note. */
function attackOf(inside: readonly XmlNode[]): { attack?: Slur } {
  const signs = inside
    .filter((child) => nameOf(child) === 'notations')
    .flatMap(childrenOf)
    .filter((child) => nameOf(child) === 'technical')
    .flatMap(childrenOf);
  const ends = (name: string) =>
    signs.some((sign) => nameOf(sign) === name && attribute(sign, 'type') === 'stop');
  if (ends('hammer-on')) return { attack: 'hammer' };
  return ends('pull-off') ? { attack: 'pull' } : {};
}

function pitchOf(inside: readonly XmlNode[]): number | null {
  const step = STEPS[textAt(inside, 'pitch', 'step')];
  const octave = Number(textAt(inside, 'pitch', 'octave'));
  if (step === undefined || !Number.isFinite(octave)) return null;
  return 12 * (octave + 1) + step + Math.round(Number(textAt(inside, 'pitch', 'alter')) || 0);
}
