import { intervalOver, noteName, readChord, type ToneRole } from '../../music';
import { elementAt, unwrap } from '../../shared';
import { landedOn, pcAt } from './landed';
import type { Counted, FindingContext, ToneName } from '../finding';

/** A tone of a chord that hardly sounded. */
export type NeverPlayedFacts = {
  readonly chord: string;
  readonly note: string;
  readonly interval: string;
  /** The bar to begin with. */
  readonly bar: number;
};

/** A tell-tale tone is missed in ten notes, another chord tone in fifteen. */
const IGNORED_IN = 10;
const NEVER_IN = 15;
/** Tones that chance alone would leave out in a take like this: more than that and nothing is said. */
const LIKELY = 0.2;
const LIKELY_TELLING = 0.6;
/** A chord tone that makes up less of the notes than this is seldom heard. */
const SELDOM = 0.05;
const GUIDES: readonly ToneRole[] = ['third', 'sus', 'seventh', 'sixth'];

/**
 * Chord tones that never sounded: tell-tale tones of chords that the home scale does not cover in ten notes,
 * thirds and sevenths in fifteen, where chance would hardly leave them out (T13.7). What the plan leaves out is
 * not asked for.
 */
export function neverPlayed(
  context: FindingContext,
  kind: 'tell-tale' | 'guide-tone',
): Counted<NeverPlayedFacts>[] {
  const asked = askedTones(context);
  return asked
    .filter(({ telling, role }) => (kind === 'tell-tale' ? telling : !telling && GUIDES.includes(role)))
    .filter((one) => (kind === 'tell-tale' ? !isToldByGuide(asked, one) : !isTold(context, one)))
    .map((one) => {
      const { chord, count, met, role, telling } = one;
      // how often this player takes such a tone elsewhere, and how many tones could have been missed as well
      const elsewhere = asked.filter((other) => other !== one && other.role === role);
      const rate =
        (elsewhere.reduce((sum, other) => sum + other.met, 0) + 1) /
        (elsewhere.reduce((sum, other) => sum + other.count, 0) + 7);
      const byChance =
        (1 - rate) ** count *
        asked.filter((other) => other.telling === telling && other.count >= enoughFor(other)).length;
      return {
        where: { chord, ...toneOf(role), bars: [] },
        met,
        of: count,
        limit: SELDOM,
        raised: met === 0 && count >= enoughFor(one) && byChance <= (telling ? LIKELY_TELLING : LIKELY),
        weight:
          Math.min(1, (4 * count) / Math.max(1, context.report.notes.length)) *
          chanceAside(count) *
          (telling ? 0.75 : 0.3),
        facts: {
          chord,
          note: one.note,
          interval: one.interval,
          bar: 1 + (context.timeline.chordSpans.find((span) => span.chord?.symbol === chord)?.bar ?? 0),
        },
      };
    });
}

type Asked = {
  readonly chord: string;
  readonly count: number;
  readonly role: ToneRole;
  readonly note: string;
  readonly interval: string;
  readonly telling: boolean;
  readonly met: number;
};

function askedTones({ report, harmony, plan }: FindingContext): Asked[] {
  return report.coverage.flatMap((cover) => {
    const chord = unwrap(readChord(cover.chord));
    const at = harmony.readings.findIndex((one) => one?.chord.symbol === cover.chord);
    const home = elementAt(harmony.homeScales, at).pcs;
    const played = new Set(
      plan.cells.flatMap(({ material }, index) =>
        harmony.readings[index]?.chord.symbol === cover.chord ? material : [],
      ),
    );
    return chord.tones
      .filter(({ pc }) => played.has(pc))
      .map((tone) => ({
        chord: cover.chord,
        count: cover.count,
        role: tone.role,
        note: noteName(tone.note),
        interval: intervalOver(chord, tone.pc),
        telling: !home.includes(tone.pc) && tone.role !== 'root',
        met: cover.byInterval[intervalOver(chord, tone.pc)]?.count ?? 0,
      }));
  });
}

/** Is the other guide tone of the same chord met at half of the changes into it? */
function isTold(context: FindingContext, one: Asked): boolean {
  const into = landedOn(context).filter(({ to }) => to === one.chord);
  const chord = unwrap(readChord(one.chord));
  const others = chord.tones.filter(({ role }) => GUIDES.includes(role) && role !== one.role);
  const met = into.filter(({ landing }) => others.some(({ pc }) => pc === pcAt(context, landing.noteIndex)));
  return into.length > 0 && met.length * 2 >= into.length;
}

/** Does a tell-tale third or seventh of the same chord sound? Then its fifth is not needed to tell the chord. */
const isToldByGuide = (asked: readonly Asked[], { chord, role, count }: Asked): boolean =>
  !GUIDES.includes(role) &&
  asked.some(
    (other) =>
      other.chord === chord &&
      other.telling &&
      GUIDES.includes(other.role) &&
      other.met >= Math.max(1, SELDOM * count),
  );

const toneOf = (role: ToneRole): { tone?: ToneName } => {
  if (role === 'third' || role === 'sus') return { tone: 'third' };
  return role === 'seventh' || role === 'sixth' ? { tone: 'seventh' } : {};
};

const enoughFor = ({ telling }: Asked): number => (telling ? IGNORED_IN : NEVER_IN);

/** One tone of seven is missed by chance in (6/7)^n of n notes: what is likely chance weighs little. */
const chanceAside = (count: number): number => (1 - (6 / 7) ** count) ** 4;
