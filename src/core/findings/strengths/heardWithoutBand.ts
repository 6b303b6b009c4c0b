import { barAt } from '../bars';
import { defineStrength } from '../strength';

type Facts = { readonly heard: number; readonly of: number };

const ENOUGH_CHORDS = 4;
const MOST = 0.6;
const ABOVE_CHANCE = 0.2;

/** The chords are told by the line alone. */
export const heardWithoutBand = defineStrength<Facts>({
  id: 'heard-without-band',
  detect: (context) => {
    const { share, chance, segments } = context.report.mutedBand;
    const counted = segments.filter(({ verdict }) => verdict !== 'silent');
    // one chord is told from no other
    if (new Set(counted.map(({ chord }) => chord)).size < 2) return null;
    if (share === null || counted.length < ENOUGH_CHORDS || share < Math.max(MOST, chance + ABOVE_CHANCE))
      return null;
    const heard = counted.filter(({ verdict }) => verdict === 'heard');
    const clearest = heard.reduce((best, one) => (one.margin > best.margin ? one : best));
    return {
      bar: barAt(context, clearest.beat),
      score: share * 0.98,
      facts: { heard: heard.length, of: counted.length },
    };
  },
  say: ({ heard, of }) =>
    `With the band muted, ${heard === of ? `all ${of}` : `${heard} of ${of}`} chords are still heard in your line.`,
  examples: [
    { heard: 9, of: 12 },
    { heard: 12, of: 12 },
    { heard: 3, of: 4 },
  ],
});
