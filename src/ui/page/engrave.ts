import {
  Accidental,
  Beam,
  BarlineType,
  Formatter,
  Fraction,
  Renderer,
  Stave,
  Stem,
  TabStave,
  Tuplet,
  VexFlow,
  Voice,
  type RenderContext,
  type StemmableNote,
} from 'vexflow/core';
import type { ScoreBar } from '@/core/notation';
import { elementAt } from '@/core/shared';
import { chordPlaces, type ChordPlace, type DrawnBar } from './chordPlaces';
import { drawnOf, tupletsOf, writtenStep, type Drawn } from './engraveNotes';
import { lowestStroke } from './lowestStroke';
import { signatureOf } from './pageLines';
import { drawSlurs, drawTabSlurs, drawTies, hasSlurs } from './arcs';

/** Where a note, a chord and a bar stand in an engraved line, in pixels of its picture. */
export type Engraved = {
  readonly height: number;
  readonly notes: readonly { readonly index: number; readonly x: number }[];
  readonly chords: readonly ChordPlace[];
  readonly bars: readonly { readonly start: number; readonly x: number; readonly width: number }[];
  /** Middle of the band the degrees stand in, under the staff, or under the tablature where it stands alone. */
  readonly degreesY: number;
  readonly top: number;
  readonly bottom: number;
  /** Under the chords, over every note. */
  readonly ceiling: number;
  /** Times of the line's places, for a cursor: beats of the take and their x, in order. */
  readonly times: readonly { readonly beat: number; readonly x: number }[];
};

export type EngraveOptions = {
  readonly width: number;
  readonly withStaff: boolean;
  readonly strings: number;
  /** The bar before this line; its meter need not be written again. */
  readonly before: ScoreBar | null;
  /** The bar after it, into which its last note may be slurred. */
  readonly after: ScoreBar | null;
};

/** The outer lines of the treble staff, as steps above C0: E4 and F5. */
const [LOWEST_LINE, HIGHEST_LINE] = [30, 38];
const STEP = 5;
const CHORDS = 30;
const DEGREES = 24;
const STAFF = 40;
const STEM = 35;
/** An arc over stems, and its letter over the tablature. */
const SLUR = 12;
const SLUR_LETTER = 18;
/** Bracket and figure over a triplet. */
const TRIPLET_SIGN = 22;
/** The word over a bend, and its arrow's head. */
const BEND_SIGN = 22;
/** Stems under tablature that stands alone. */
const TAB_STEM = 42;
const TAB_LINE = 13;
const EDGE = 8;

/** Draws one line of bars into `host` and says where everything stands. The music font must be there already. */
export function engrave(host: HTMLDivElement, bars: readonly ScoreBar[], options: EngraveOptions): Engraved {
  const { width, withStaff, strings } = options;
  const heads = bars.flatMap(({ entries }) => entries.flatMap((entry) => entry.pitches.map(writtenStep)));
  const hasTriplets = bars.some(({ entries }) => entries.some(({ head }) => head.triplet));
  const slurs = hasSlurs(bars, options);
  const above =
    Math.max(12, (Math.max(HIGHEST_LINE, ...heads) - HIGHEST_LINE) * STEP + STEM - 20) +
    (hasTriplets ? TRIPLET_SIGN : 0) +
    (slurs ? SLUR : 0);
  const staffTop = CHORDS + above;
  host.replaceChildren();
  const renderer = new Renderer(host, Renderer.Backends.SVG);
  const context = renderer.getContext();
  context.setFillStyle('currentColor').setStrokeStyle('currentColor');
  const drawn = bars.map((bar): DrawnBar => ({
    bar,
    drawn: bar.entries.map((entry) => drawnOf(entry, withStaff)),
  }));
  const line = new Line(context, drawn, { ...options, staffTop });
  line.drawStaff();
  const lowestHead = staffTop + STAFF + (LOWEST_LINE - Math.min(LOWEST_LINE, ...heads) + 1) * STEP;
  const degreesTop = Math.max(lowestHead, lowestStroke(host)) + 6;
  // the words of a bend stand over the tablature
  const bends = bars.some(({ entries }) =>
    entries.some(({ pitches }) => pitches.some(({ note }) => note.bend)),
  );
  const signs = Math.max(bends ? BEND_SIGN : 0, slurs ? SLUR_LETTER : 0);
  const tabTop = (withStaff ? degreesTop + DEGREES + 8 : CHORDS + 14) + signs;
  const tabBottom = tabTop + (strings - 1) * TAB_LINE;
  line.drawTab(tabTop);
  const height = tabBottom + (withStaff ? 30 : TAB_STEM + DEGREES + 16);
  renderer.resize(width, height);
  return {
    height,
    ...line.places(),
    chords: chordPlaces(drawn, withStaff ? staffTop - above - 8 : CHORDS - 14, ({ staff, tab }) =>
      withStaff ? staff : tab,
    ),
    degreesY: withStaff ? degreesTop + DEGREES / 2 : tabBottom + TAB_STEM + 16,
    top: withStaff ? staffTop : tabTop,
    bottom: tabBottom,
    ceiling: withStaff ? CHORDS - 4 : tabTop - 12,
  };
}

type Places = Pick<Engraved, 'notes' | 'bars' | 'times'>;
type LineOptions = EngraveOptions & { readonly staffTop: number };
/** A bar in its place, its notes spaced. */
type SetBar = DrawnBar & {
  readonly x: number;
  readonly width: number;
  readonly tab: TabStave;
  readonly tabVoice: Voice;
  /** Beams and tuplets of tablature that stands alone. */
  readonly tabSigns: readonly (Beam | Tuplet)[];
};

const meterText = ({ upper, lower }: ScoreBar['meter']): string => `${upper}/${lower}`;
const beatOf = ({ counting, meter }: ScoreBar): Fraction =>
  counting.beat === 72 ? new Fraction(3, 8) : new Fraction(1, meter.lower);

/** One line of bars being drawn: first the staff, then the tablature under whatever hangs from it. */
class Line {
  private readonly set: SetBar[] = [];

  constructor(
    private readonly context: RenderContext,
    private readonly bars: readonly DrawnBar[],
    private readonly options: LineOptions,
  ) {}

  drawStaff(): void {
    const heads = this.bars.map((_, index) => this.headWidth(index));
    const wanted = this.bars.map(({ drawn }) => 24 + drawn.length * 20);
    const room = this.options.width - 2 * EDGE - sum(heads);
    let x = EDGE;
    this.bars.forEach((bar, index) => {
      const width = elementAt(heads, index) + (room * elementAt(wanted, index)) / sum(wanted);
      this.set.push(this.setBar(bar, index, x, width));
      x += width;
    });
    if (!this.options.withStaff) return;
    drawTies(this.context, this.entries());
    drawSlurs(this.context, this.entries(), this.options);
  }

  drawTab(top: number): void {
    const { withStaff, staffTop, strings } = this.options;
    for (const { tab, tabVoice, tabSigns } of this.set) {
      tab.setY(top).setContext(this.context).draw();
      tabVoice.draw(this.context, tab);
      for (const sign of tabSigns) sign.setContext(this.context).draw();
    }
    drawTabSlurs(this.context, this.entries(), { ...this.options, top });
    if (!withStaff) return;
    const bottom = top + (strings - 1) * TAB_LINE;
    this.context.beginPath().moveTo(EDGE, staffTop).lineTo(EDGE, bottom).stroke();
  }

  /** Where everything stands, once the tablature has its place too. */
  places(): Places {
    const shown = ({ staff, tab }: Drawn) => (this.options.withStaff ? staff : tab);
    // a head stands to the right of its place, a figure over it
    const xOf = (one: Drawn) => shown(one).getAbsoluteX() + (this.options.withStaff ? 6 : 0);
    return {
      bars: this.set.map(({ bar, x, width }) => ({ start: bar.start, x, width })),
      notes: this.set.flatMap(({ drawn }) =>
        drawn.flatMap((one) =>
          one.entry.pitches.filter(({ tie }) => !tie.from).map(({ index }) => ({ index, x: xOf(one) })),
        ),
      ),
      times: this.set.flatMap(({ bar, drawn, x, width }) => [
        ...drawn.map((one) => ({ beat: bar.start + one.entry.at / bar.counting.beat, x: xOf(one) })),
        { beat: bar.start + bar.counting.bar / bar.counting.beat, x: x + width },
      ]),
    };
  }

  private showsMeter(index: number): boolean {
    const before = this.bars[index - 1]?.bar ?? this.options.before;
    return !before || meterText(before.meter) !== meterText(elementAt(this.bars, index).bar.meter);
  }

  /** Room for clef, key and meter at the beginning of a bar. */
  private headWidth(index: number): number {
    const meter = this.showsMeter(index) ? 26 : 0;
    const { withStaff } = this.options;
    const key = withStaff && this.showsKey(index) ? 11 * this.signsAt(index) : 0;
    if (index > 0) return meter + key;
    return meter + (withStaff ? 40 + key : 30);
  }

  private keyAt(index: number): ReturnType<typeof signatureOf> {
    return signatureOf(elementAt(this.bars, index).bar.key);
  }

  /** A line begins with its key; after that a key is written where it changes. */
  private showsKey(index: number): boolean {
    return index === 0 || this.keyAt(index).name !== this.keyAt(index - 1).name;
  }

  /** Signs of a key, and naturals for those of the one before. */
  private signsAt(index: number): number {
    const { signs } = this.keyAt(index);
    return index === 0 ? signs : Math.max(signs, 1) + this.keyAt(index - 1).signs;
  }

  private setBar({ bar, drawn }: DrawnBar, index: number, x: number, width: number): SetBar {
    const { withStaff, strings, staffTop } = this.options;
    const flat = { spaceAboveStaffLn: 0, spaceBelowStaffLn: 0 };
    const stave = new Stave(x, staffTop, width, flat);
    const tab = new TabStave(x, 0, width, { ...flat, numLines: strings, spacingBetweenLinesPx: TAB_LINE });
    if (index === 0) {
      stave.addClef('treble', 'default', '8vb');
      tab.addClef('tab');
    }
    if (this.showsKey(index))
      stave.addKeySignature(this.keyAt(index).name, index > 0 ? this.keyAt(index - 1).name : undefined);
    if (this.showsMeter(index)) (withStaff ? stave : tab).addTimeSignature(meterText(bar.meter));
    const opens = index === 0 ? BarlineType.SINGLE : BarlineType.NONE;
    for (const one of [stave, tab]) one.setEndBarType(BarlineType.SINGLE).setBegBarType(opens);
    const start = Math.max(withStaff ? stave.getNoteStartX() : 0, tab.getNoteStartX());
    stave.setNoteStartX(start);
    tab.setNoteStartX(start);
    if (withStaff) stave.setContext(this.context).draw();
    return {
      bar,
      drawn,
      x,
      width,
      tab,
      ...this.setNotes({ bar, drawn }, stave, index, x + width - start - 14),
    };
  }

  /** Spaces both voices together, and draws that of the staff. */
  private setNotes(
    { bar, drawn }: DrawnBar,
    stave: Stave,
    index: number,
    room: number,
  ): Pick<SetBar, 'tabVoice' | 'tabSigns'> {
    const { withStaff } = this.options;
    const voiceOf = (notes: StemmableNote[]) =>
      new Voice({ numBeats: bar.meter.upper, beatValue: bar.meter.lower })
        .setMode(Voice.Mode.SOFT)
        .addTickables(notes);
    const staffNotes = drawn.map(({ staff }) => staff);
    const [signs, tabTuplets] = [tupletsOf(drawn, 'staff'), tupletsOf(drawn, 'tab')];
    const [staffVoice, tabVoice] = [voiceOf(staffNotes), voiceOf(drawn.map(({ tab }) => tab))];
    if (withStaff) Accidental.applyAccidentals([staffVoice], this.keyAt(index).name);
    const beamed = withStaff ? staffNotes : drawn.map(({ tab }) => tab);
    const beams = Beam.generateBeams(beamed, {
      groups: [beatOf(bar)],
      ...(!withStaff && { stemDirection: Stem.DOWN, flatBeams: true }),
    });
    // where they stand is chosen with the beams: under some notes are their degrees
    for (const sign of signs) sign.setTupletLocation(Tuplet.LOCATION_TOP).setBracketed(true);
    const voices = withStaff ? [staffVoice, tabVoice] : [tabVoice];
    const formatter = new Formatter();
    for (const voice of voices) formatter.joinVoices([voice]);
    formatter.format(voices, Math.max(40, room));
    if (withStaff) {
      staffVoice.draw(this.context, stave);
      for (const sign of [...beams, ...signs]) sign.setContext(this.context).draw();
    }
    return { tabVoice, tabSigns: withStaff ? [] : [...beams, ...tabTuplets] };
  }

  private entries(): readonly Drawn[] {
    return this.set.flatMap(({ drawn }) => drawn);
  }
}

const sum = (values: readonly number[]): number => values.reduce((total, value) => total + value, 0);

/** The font of the signs, and that of figures and words. */
export const MUSIC_FONT = 'Bravura';
export const setEngravingFonts = (text: string): void => void VexFlow.setFonts(MUSIC_FONT, text);
