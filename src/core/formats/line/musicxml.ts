import { fifthsTags, harmonyTag, scoreText, tag, tempoTag, type Xml } from '../musicxml/write';
import type { Meter } from '../../chart';
import { sameKey } from '../../music';
import type { Touch } from '../../neck';
import {
  DIVISIONS,
  scoreOf,
  type Head,
  slurInto,
  slursOver,
  tripletsOf,
  type ScoreBar,
  type ScoreEntry,
  type ScorePitch,
  type WrittenNote,
} from '../../notation';
import { elementAt, present, type Beats } from '../../shared';
import type { LineSheet } from './midi';

/**
 * A take's line as a MusicXML score: the form written out chorus by chorus with its chords, each beat on
 * the plainest grid, slides as
 * scoops and falls into their note, bends as such, hammer-ons and pull-offs under slurs, ghosts with a cross. How each note was
 * really played stands in its
 * `attack` and `release`, so that the page can be read and the take is not lost.
 * Source: MusicXML 3.0 and later, elements `note`, `technical`, `articulations`.
 */
export function writeLineMusicXml(sheet: LineSheet): string {
  const bars = scoreOf(sheet);
  const hasLeadIn = elementAt(bars, 0).start < 0;
  const slurs = slursOf(bars.flatMap(({ entries }) => entries));
  const measures = bars.map((bar, number) =>
    tag('measure', [...measureHead(sheet, bars, number), ...measureNotes(bar, slurs)], {
      number: hasLeadIn ? number : number + 1,
    }),
  );
  return scoreText(sheet.title, [tag('score-part', [tag('part-name', 'Guitar')], { id: 'P1' })], measures);
}

const timeTag = ({ upper, lower }: Meter): Xml => tag('time', [tag('beats', upper), tag('beat-type', lower)]);

const directionTag = (inside: Xml): Xml =>
  tag('direction', [tag('direction-type', [inside])], { placement: 'above' });

/** What stands before the notes of a measure: attributes, the chorus, tempo and swing. */
function measureHead(sheet: LineSheet, bars: readonly ScoreBar[], number: number): Xml[] {
  const { tempo, swing } = sheet;
  const bar = elementAt(bars, number);
  const { meter } = bar;
  const chorus =
    bar.chorus >= 0 && bar.index === 0 ? [directionTag(tag('rehearsal', `Chorus ${bar.chorus + 1}`))] : [];
  if (number > 0) {
    const before = elementAt(bars, number - 1);
    const isNewMeter = meter.upper !== before.meter.upper || meter.lower !== before.meter.lower;
    const isNewKey = bar.key !== null && (before.key === null || !sameKey(bar.key, before.key));
    const changed = [...(isNewKey ? fifthsTags(bar.key) : []), ...(isNewMeter ? [timeTag(meter)] : [])];
    return [...(changed.length > 0 ? [tag('attributes', changed)] : []), ...chorus];
  }
  const attributes = tag('attributes', [
    tag('divisions', DIVISIONS),
    ...fifthsTags(bar.key),
    timeTag(meter),
    tag('clef', [tag('sign', 'G'), tag('line', 2), tag('clef-octave-change', -1)]),
  ]);
  return [
    attributes,
    ...chorus,
    tempoTag(tempo, meter),
    ...(swing === null ? [] : [directionTag(tag('words', `Swing ${swing.toFixed(1)} : 1`))]),
  ];
}

/** A bar's notes and rests, each chord before what sounds where it begins. */
function measureNotes({ entries, chords, start, counting }: ScoreBar, slurs: SlurTags): Xml[] {
  const perBeat = counting.beat;
  const triplets = tripletsOf(entries);
  return entries.flatMap((entry) => {
    const { at, head, pitches } = entry;
    const signs = tripletTags(triplets, entry);
    const symbols = chords
      .filter((chord) => chord.at >= at && chord.at < at + head.size)
      .map((chord) => harmonyTag(chord.chord, chord.at - at));
    const rest = tag('note', [
      tag('rest', [], head.size === counting.bar ? { measure: 'yes' } : undefined),
      tag('duration', head.size),
      tag('voice', 1),
      ...headTags(head),
      ...(signs.length > 0 ? [tag('notations', signs)] : []),
    ]);
    const place = (division: number): Beats => start + division / perBeat;
    const heads = pitches.map((pitch, index) =>
      noteTag(
        pitch,
        head,
        { inChord: index > 0, signs: index > 0 ? [] : signs, slurs: slurs(entry) },
        (beat, end) => round((beat - place(end ? at + head.size : at)) * perBeat),
      ),
    );
    return [...symbols, ...(heads.length > 0 ? heads : [rest])];
  });
}

const round = (divisions: number): number => Math.round(divisions * 1000) / 1000;

const headTags = ({ type, dots, triplet }: Head): Xml[] => [
  tag('type', type),
  ...Array.from({ length: dots }, () => tag('dot', [])),
  ...(triplet ? [tag('time-modification', [tag('actual-notes', 3), tag('normal-notes', 2)])] : []),
];

/** Where a sign for three begins and ends: many readers take the lengths from it alone. */
const tripletTags = (triplets: readonly ScoreEntry[][], entry: ScoreEntry): Xml[] =>
  triplets.flatMap((group) => [
    ...(group[0] === entry ? [tag('tuplet', [], { type: 'start', bracket: 'yes' })] : []),
    ...(group.at(-1) === entry ? [tag('tuplet', [], { type: 'stop' })] : []),
  ]);

type SlurTags = (entry: ScoreEntry) => {
  readonly notations: readonly Xml[];
  readonly technical: readonly Xml[];
};
type NoteSigns = {
  readonly inChord: boolean;
  readonly signs: readonly Xml[];
  readonly slurs: ReturnType<SlurTags>;
};

const TECHNIQUE = {
  hammer: { name: 'hammer-on', letter: 'H' },
  pull: { name: 'pull-off', letter: 'P' },
} as const;

/** One slur over all that the fretting hand begins, and each hammer-on and pull-off from its note to the next. */
function slursOf(entries: readonly ScoreEntry[]): SlurTags {
  const places = new Map(entries.map((entry, place) => [entry, place]));
  const spans = slursOver(entries, undefined, undefined);
  const [begins, ends] = [new Set(spans.map(({ first }) => first)), new Set(spans.map(({ last }) => last))];
  const slurTag = (type: 'start' | 'stop') => tag('slur', [], { type, number: 1 });
  const techniqueTag = (place: number, type: 'start' | 'stop'): Xml[] => {
    const slur = slurInto(entries[place - 1], entries[place]);
    if (!slur) return [];
    const { name, letter } = TECHNIQUE[slur];
    return [tag(name, type === 'start' ? letter : [], { type, number: 1 })];
  };
  return (entry) => {
    const place = present(places.get(entry));
    return {
      notations: [
        ...(ends.has(place) ? [slurTag('stop')] : []),
        ...(begins.has(place) ? [slurTag('start')] : []),
      ],
      technical: [...techniqueTag(place, 'stop'), ...techniqueTag(place + 1, 'start')],
    };
  };
}

/** @param away of a beat from where the head begins, or ends, in divisions */
function noteTag(
  { note, letter, alter, octave, tie, touch }: ScorePitch,
  head: Head,
  { inChord, signs, slurs }: NoteSigns,
  away: (beat: Beats, end: boolean) => number,
): Xml {
  const attributes = {
    ...(tie.from ? {} : { attack: away(note.onsetBeat, false) }),
    ...(tie.to ? {} : { release: away(note.onsetBeat + note.durationBeats, true) }),
  };
  const ties = [...(tie.from ? ['stop'] : []), ...(tie.to ? ['start'] : [])];
  return tag(
    'note',
    [
      ...(inChord ? [tag('chord', [])] : []),
      tag('pitch', [
        tag('step', letter),
        ...(alter === 0 ? [] : [tag('alter', alter)]),
        tag('octave', octave),
      ]),
      tag('duration', head.size),
      ...ties.map((type) => tag('tie', [], { type })),
      tag('voice', 1),
      ...headTags(head),
      ...(note.ghost ? [tag('notehead', 'x')] : []),
      ...notationsOf(
        note,
        [...ties.map((type) => tag('tied', [], { type })), ...signs, ...slurs.notations],
        !tie.from,
        touch,
        slurs.technical,
      ),
    ],
    Object.keys(attributes).length ? attributes : undefined,
  );
}

function notationsOf(
  note: WrittenNote,
  signs: readonly Xml[],
  starts: boolean,
  touch: Touch | null,
  slurs: readonly Xml[],
): Xml[] {
  const inside: Xml[] = [...signs];
  const technical: Xml[] = [];
  if (touch) technical.push(tag('string', touch.string), tag('fret', touch.fret));
  technical.push(...slurs);
  const alter = starts && note.bend ? Math.round(reachOf(note.bend) / 50) / 2 : 0;
  if (alter !== 0) technical.push(tag('bend', [tag('bend-alter', alter)]));
  if (technical.length > 0) inside.push(tag('technical', technical));
  if (starts && note.slide)
    inside.push(tag('articulations', [tag(note.slide.fromMidi < note.midi ? 'scoop' : 'plop', [])]));
  return inside.length > 0 ? [tag('notations', inside)] : [];
}

/** How far a bend goes from where it begins, in cents. */
function reachOf(bend: NonNullable<WrittenNote['bend']>): number {
  const [, from] = present(bend[0]);
  return bend.reduce((most, [, cents]) => (Math.abs(cents - from) > Math.abs(most) ? cents - from : most), 0);
}
