import { availableTensions } from '@/core/chart';
import { typeset } from '@/core/music';
import { intervalOver, noteName, fromRoot, scaleNotes } from '@/core/music';
import { elementAt, present } from '@/core/shared';
import { intervalLabel } from '@/ui/intervalLabel';
import { type Study, nameOver, nextChange } from './studyView';
/** A short fact: names, each with its interval where that is worth saying. */
export type Fact = {
  readonly name: string;
  readonly values: readonly { readonly text: string; readonly interval?: string }[];
};

/** The selected chord in short facts. */
export function factsOf(study: Study, index: number): Fact[] {
  const { reading, plan, rubs } = elementAt(study.cells, index);
  if (!reading) return [{ name: 'No chord', values: [{ text: 'the home scale speaks alone' }] }];
  const { chord, scale } = reading;
  const named = (pcs: Iterable<number>) =>
    fromRoot(chord, pcs).map((pc) => ({
      text: nameOver(chord, pc),
      interval: intervalLabel(intervalOver(chord, pc)),
    }));
  const names = (pcs: Iterable<number>) =>
    fromRoot(chord, pcs)
      .map((pc) => nameOver(chord, pc))
      .join(' ');
  const asScale = plan.shapes.length === 1 && present(plan.shapes[0]).name === scale.name;
  return [
    {
      name: 'Tones',
      values: chord.tones.map((tone) => ({
        text: typeset(noteName(tone.note)),
        interval: intervalLabel(tone.interval),
      })),
    },
    { name: 'Colours', values: named(availableTensions(chord, scale)) },
    {
      name: 'Scale',
      values: [
        { text: typeset(scale.name).replace('natural minor', 'minor') },
        {
          text: scaleNotes(scale)
            .map((note) => typeset(noteName(note)))
            .join(' '),
        },
      ],
    },
    ...(asScale
      ? []
      : [
          {
            name: 'Plan plays',
            values: [
              { text: plan.shapes.map((shape) => typeset(shape.name)).join(', ') },
              { text: plan.material.length >= 11 ? 'every note, on the way home' : names(plan.material) },
            ],
          },
        ]),
    { name: 'Land on', values: named(plan.targets) },
    ...(rubs.length > 0
      ? [{ name: 'Rubs', values: [{ text: rubs.join(' ') }, { text: 'by a half step' }] }]
      : []),
  ];
}

/** What changes into the next chord, voice by voice. */
export function movesOf(study: Study, index: number): string[] {
  const next = nextChange(study, index);
  const from = lastOf(study, index);
  const [own, then] = [elementAt(study.cells, index).chord, next.chord];
  const [a, b] = [study.thread[from], study.thread[next.index]];
  if (!own || !then || !a || !b || next.index === index) return [];
  return [0, 1].map((voice) => {
    const [one, two] = [a[voice as 0 | 1], b[voice as 0 | 1]];
    const step = ((two.midi - one.midi + 18) % 12) - 6;
    const [name, to] = [typeset(noteName(one.tone.note)), typeset(noteName(two.tone.note))];
    if (step === 0) return `${name} stays: the ${ROLE[one.tone.role]} becomes the ${ROLE[two.tone.role]}.`;
    return `${name} ${step < 0 ? 'falls' : 'rises'} to ${to}, ${FRETS[Math.abs(step)] ?? `${Math.abs(step)} frets`}.`;
  });
}

export const ROLE: Record<string, string> = {
  root: 'root',
  third: 'third',
  sus: 'fourth',
  fifth: 'fifth',
  sixth: 'sixth',
  seventh: 'seventh',
  bass: 'bass',
  tension: 'colour',
};

export const FRETS = ['', 'one fret', 'two frets', 'three frets', 'four frets', 'five frets', 'six frets'];

/** The last stretch of the chord that sounds at one. */
export function lastOf({ cells }: Study, index: number): number {
  let at = index;
  while (cells[at + 1]?.chord?.symbol === elementAt(cells, index).chord?.symbol && cells[at + 1]) at++;
  return at;
}
