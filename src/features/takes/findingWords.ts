const WORDS: Record<string, string> = {
  'target-missed': 'targets missed', 'tone-missed': 'one tone missed', 'still-on-old-chord': 'still on the old chord', 'change-ignored': 'a chord passed over', 'landing-late': 'landings late', 'root-only': 'roots only', 'leaps-into-changes': 'leaps into changes',
  'turns-late': 'turns late', 'turns-early': 'turns early', 'no-approaches': 'no approaches', 'approach-one-side': 'approaches from one side', 'approach-unresolved': 'approaches left open', 'no-enclosures': 'no enclosures', 'tone-never-played': 'a tone never played',
  'home-scale-only': 'the home scale only', 'outline-only': 'chord tones only', 'narrow-range': 'a narrow range', 'one-position': 'one position', 'starts-on-one': 'starts on one', 'starts-alike': 'starts alike', 'no-space': 'no space', 'phrases-too-short': 'short phrases',
  'never-crosses-changes': 'phrases within one chord', 'ends-asking': 'ends asking', 'no-motif': 'no motif', 'same-shape': 'one shape', rushes: 'rushes', drags: 'drags', uneven: 'uneven time', 'no-upbeats': 'no upbeats', 'one-rhythm': 'one rhythm', 'scale-running': 'scale runs',
  'leaps-only': 'leaps only', 'one-direction': 'one direction', 'stays-outside': 'stays outside', 'stays-on-ground': 'stays on the ground', 'step-out-lost': 'no way home', 'lost-place': 'lost the place', 'handover-late': 'handovers late', 'chord-hit-wrong': 'chord hits off', improved: 'got better', kept: 'kept when faster',
};

/** A kind of finding in a few words, for choosing takes by. */
export const findingWords = (kind: string): string => WORDS[kind] ?? kind.replaceAll('-', ' ');
