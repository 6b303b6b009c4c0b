import { expect, test } from '@jest/globals';
import { analyse, type NoteFunction, type PlayedNote, type Report } from '@/core/analyse';
import { readChart } from '@/core/chart';
import { unwrap } from '@/core/shared';
import { LABELLED_LINES, TEXTBOOK_LINES, type LabelledLine } from '../corpora/labelledLines';

const SHORT: Record<string, NoteFunction> = {
  t: 'target',
  c: 'chord-tone',
  a: 'anticipation',
  en: 'enclosure',
  dc: 'double-chromatic',
  ab: 'approach-below',
  aa: 'approach-above',
  su: 'suspension',
  re: 'retardation',
  pa: 'passing',
  ne: 'neighbour',
  co: 'colour',
  sc: 'scale',
  ou: 'outside',
  gr: 'grace',
};
const LETTERS: Record<string, number> = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 };

const midiOf = (name: string): number => {
  const [, letter, sign, octave] = /^([A-G])([#b]?)(\d)$/.exec(name)!;
  return LETTERS[letter!]! + ({ '#': 1, b: -1 }[sign ?? ''] ?? 0) + 12 * (Number(octave) + 1);
};

/** Half beats, or note by note. */
function notesOf(line: string): PlayedNote[] {
  const words = line.split(/\s+/).filter((word) => word !== '|' && word !== '');
  if (words[0]!.includes('@'))
    return words.map((word) => {
      const [, midi, onset, length] = /^(\d+)@(-?[\d.]+)\+([\d.]+)$/.exec(word)!;
      return { midi: Number(midi), onsetBeat: Number(onset), durationBeats: Number(length) };
    });
  const notes: { midi: number; onsetBeat: number; durationBeats: number }[] = [];
  let last: typeof notes = [];
  words.forEach((word, slot) => {
    if (word === '-') for (const note of last) note.durationBeats += 0.5;
    else
      last =
        word === '.'
          ? []
          : word.split('+').map((name) => ({ midi: midiOf(name), onsetBeat: slot / 2, durationBeats: 0.5 }));
    if (word !== '-') notes.push(...last);
  });
  return notes;
}

const judge = ({ chart, line, tempo = 120 }: LabelledLine): Report =>
  analyse({ chart: unwrap(readChart(chart)), tempo, notes: notesOf(line), plan: { id: 'scale-per-chord' } });

const labelsOf = (report: Report): string[] =>
  report.notes.map((note) => `${note.interval} ${note.function}`);
const spelled = (labels: string): string[] =>
  labels.split(' ').map((label) => {
    const [, interval, what] = /^(null|[b#]?\d+)([a-z]+)$/.exec(label)!;
    return `${interval} ${SHORT[what!]}`;
  });

function check(labelled: LabelledLine): void {
  const report = judge(labelled);
  if (labelled.labels !== undefined) expect(labelsOf(report)).toEqual(spelled(labelled.labels));
  if (labelled.landings)
    expect(
      report.changes.slice(0, labelled.landings.length).map(({ landing, connection }) => {
        if (landing.rest) return 'rest';
        if (landing.noteIndex === null) return 'none';
        return `${landing.timing} ${landing.interval} ${landing.verdict} ${connection.kind}`;
      }),
    ).toEqual(labelled.landings);
  if (labelled.phrases)
    expect(report.phrases.map((phrase) => `${phrase.startBeat}-${phrase.endBeat} ${phrase.end}`)).toEqual(
      labelled.phrases,
    );
  if (labelled.shapes)
    expect(
      report.shapes.map(
        (shape) =>
          `${shape.kind} ${shape.name}${shape.relation ? ` on ${shape.relation}` : ''} ${shape.noteIndices[0]}-${shape.noteIndices[shape.noteIndices.length - 1]}`,
      ),
    ).toEqual(labelled.shapes);
  if (labelled.heard)
    expect(
      report.mutedBand.segments.slice(0, labelled.heard.split(' ').length).map(({ verdict }) => verdict),
    ).toEqual(labelled.heard.split(' '));
}

test.each(LABELLED_LINES)('$name', check);
test.each(TEXTBOOK_LINES)('$name ($source)', check);

test('lines enough', () =>
  expect(
    new Set([...LABELLED_LINES, ...TEXTBOOK_LINES].map(({ name, chart }) => name + chart)).size,
  ).toBeGreaterThanOrEqual(150));
