import {
  Curve,
  StaveTie,
  Stem,
  TabNote,
  TabTie,
  VexFlow,
  type RenderContext,
  type StaveNote,
} from 'vexflow/core';
import { slurInto, slursOver, type ScoreBar, type ScoreEntry } from '@/core/notation';
import { elementAt } from '@/core/shared';
import type { Drawn } from './engraveNotes';

/** Bars a line's slurs may come from and go on to. */
type Around = { readonly before: ScoreBar | null; readonly after: ScoreBar | null };

const entryBefore = ({ before }: Around): ScoreEntry | undefined => before?.entries.at(-1);
const entryAfter = ({ after }: Around): ScoreEntry | undefined => after?.entries[0];

export function hasSlurs(bars: readonly ScoreBar[], around: Around): boolean {
  const entries = bars.flatMap((bar) => bar.entries);
  return slursOver(entries, entryBefore(around), entryAfter(around)).length > 0;
}

/** Of notes held over; in the tablature they stand in brackets. */
export function drawTies(context: RenderContext, line: readonly Drawn[]): void {
  line.forEach(({ entry, staff }, index) => {
    if (!entry.pitches.some(({ tie }) => tie.to)) return;
    const next = line[index + 1]?.staff;
    const places = entry.pitches.map((_, place) => place);
    new StaveTie({
      firstNote: staff,
      ...(next && { lastNote: next }),
      firstIndexes: places,
      lastIndexes: places,
    })
      .setContext(context)
      .draw();
  });
}

/** How far an arc stands off the straight line between its ends, in pixels. */
const BULGE = 9;
const OFF = 7;

/** Over the staff from the picked note to the last one slurred to it; a slur that goes over the line's end stays open. */
export function drawSlurs(context: RenderContext, line: readonly Drawn[], around: Around): void {
  const entries = line.map(({ entry }) => entry);
  for (const span of slursOver(entries, entryBefore(around), entryAfter(around))) {
    const staffs = line.slice(Math.max(0, span.first), span.last + 1).map(({ staff }) => staff);
    const isUnder = staffs.every((note) => note.getStemDirection() === Stem.UP);
    const [first, last] = [elementAt(staffs, 0), elementAt(staffs, staffs.length - 1)];
    const bulge = BULGE + beyond(staffs, isUnder);
    context.openGroup('slur');
    new Curve(span.first < 0 ? undefined : first, span.last >= line.length ? undefined : last, {
      openingDirection: isUnder ? 'up' : 'down',
      position: endOf(first, isUnder),
      positionEnd: endOf(last, isUnder),
      yShift: OFF,
      cps: [
        { x: 0, y: bulge },
        { x: 0, y: bulge },
      ],
    })
      .setContext(context)
      .draw();
    context.closeGroup();
  }
}

const { NEAR_HEAD, NEAR_TOP } = Curve.Position as unknown as Record<'NEAR_HEAD' | 'NEAR_TOP', number>;

/** An arc over its notes begins at the tip of a stem that goes up, and at the head of one that goes down. */
const endOf = (note: StaveNote, isUnder: boolean): number =>
  isUnder || note.getStemDirection() === Stem.DOWN ? NEAR_HEAD : NEAR_TOP;

/** How far notes between the ends stand out beyond the straight line between them, in pixels. */
function beyond(notes: readonly StaveNote[], isUnder: boolean): number {
  const edge = (note: StaveNote): number => {
    const { baseY, topY } = note.getStemExtents();
    return isUnder ? baseY : Math.min(baseY, topY);
  };
  const [from, to] = [edge(elementAt(notes, 0)), edge(elementAt(notes, notes.length - 1))];
  return notes.reduce((most, note, place) => {
    const straight = from + ((to - from) * place) / Math.max(1, notes.length - 1);
    return Math.max(most, isUnder ? edge(note) - straight : straight - edge(note));
  }, 0);
}

const LETTER = { hammer: 'H', pull: 'P' } as const;

/**
 * Between the figures of a string, with the letter of what the fretting hand does.
 * @param top of the tablature, in pixels
 */
export function drawTabSlurs(
  context: RenderContext,
  line: readonly Drawn[],
  { top, ...around }: Around & { readonly top: number },
): void {
  const all: readonly (Partial<Drawn> & Pick<Drawn, 'entry'>)[] = [
    { entry: entryBefore(around) ?? EMPTY },
    ...line,
    { entry: entryAfter(around) ?? EMPTY },
  ];
  for (let place = 1; place < all.length; place++) {
    const [from, to] = [elementAt(all, place - 1), elementAt(all, place)];
    const slur = slurInto(from.entry, to.entry);
    const [first, last] = [from.tab, to.tab];
    if (!slur || !isOnOneString(from.entry, to.entry) || !(isFigure(first) || isFigure(last))) continue;
    const notes = {
      ...(isFigure(first) && { firstNote: first }),
      ...(isFigure(last) && { lastNote: last }),
    };
    const tie = new TabTie({ ...notes, firstIndexes: [0], lastIndexes: [0] });
    tie.setContext(context).draw();
    writeLetter(context, LETTER[slur], (tie.getFirstX() + tie.getLastX()) / 2, top);
  }
}

/** In the tablature's own words, in the room over it. */
const LETTER_FONT = { size: 11, weight: 600, over: 10 };

function writeLetter(context: RenderContext, letter: string, middle: number, top: number): void {
  context.save();
  context.openGroup('tabslur');
  context.setFont(VexFlow.getFonts()[1] ?? 'sans-serif', LETTER_FONT.size, LETTER_FONT.weight);
  context.fillText(letter, middle - context.measureText(letter).width / 2, top - LETTER_FONT.over);
  context.closeGroup();
  context.restore();
}

const EMPTY: ScoreEntry = {
  at: 0,
  head: { size: 1, type: 'whole', dots: 0, triplet: false },
  pitches: [],
};

const isFigure = (tab: Drawn['tab'] | undefined): tab is TabNote => tab instanceof TabNote;
const isOnOneString = ({ pitches: [from] }: ScoreEntry, { pitches: [to] }: ScoreEntry): boolean =>
  from?.touch !== null && from?.touch?.string === to?.touch?.string;
