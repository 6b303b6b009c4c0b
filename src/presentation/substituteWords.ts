import type { SubstituteKind } from '@/core/plan';

const REASONS: Readonly<Record<SubstituteKind, string>> = {
  tritone: 'the tritone substitute: the same third and seventh, and its root slips down a half step',
  'side-slip-up': 'the same chord a half step up, then home: tension the ear follows back',
  'side-slip-down': 'the same chord a half step down, then home: tension the ear follows back',
  'related-two': 'its own ii first: the dominant is prepared as a ii–V',
  'two-five-inserted': 'a ii–V of its own before it: the chord is reached instead of only being there',
  relative: 'the relative chord: nearly the same tones, heard from another root',
  'third-related': 'the chord on its third: root left out, ninth added',
  'flat-three-triad': 'the triad on its lowered third: third, fifth and seventh of the chord',
  'four-triad': 'the triad on its fourth: fourth, sixth and root, open and bright',
  'flat-seven-triad': 'the triad on its lowered seventh: seventh, ninth and eleventh',
  'sharp-eleven-triad': 'the triad on its second: ninth, raised eleventh and sixth',
  'minor-on-five': 'the minor seventh on its fifth: fifth, seventh, ninth and eleventh of the dominant',
  'altered-minor': 'the minor chord a half step up: the altered tones, a melodic minor the hand knows',
  diminished: 'the diminished seventh on its third: the dominant with a flat ninth',
  'back-door': 'a iv–♭VII before it: home from the other side',
};

/** Why a substitute may be laid over a chord, in one line. */
export const substituteReason = (kind: SubstituteKind): string => REASONS[kind];
