import { counted } from '../words';
import { defineKind } from '../measure';
import { intervalWord, times, typeset } from '../../music';
import { neverPlayed, type NeverPlayedFacts } from './neverPlayed';

/** The tell-tale tone of a chord never sounds: the chord is passed over. */
export const changeIgnored = defineKind<NeverPlayedFacts>({
  id: 'change-ignored',
  name: 'a chord passed over',
  hides: ['tone-never-played'],
  drill: 'home-tell-tale',
  isNoProgress: true,
  detect: (context) => neverPlayed(context, 'tell-tale'),
  say: ({ met, of, facts: { chord, note, interval, bar } }) => ({
    title: `${typeset(note)} over ${typeset(chord)}`,
    sentence: `Over ${typeset(chord)} you ${met === 0 ? 'never played' : 'played'} ${typeset(note)}, its ${intervalWord(interval)},${met === 0 ? '' : ` ${times(met)}`} in ${counted(of, 'note')}.`,
    detail: 'It is the note your home scale lacks there.',
    advice: `Start with ${typeset(note)} in bar ${bar}.`,
  }),
  example: { chord: 'G7', note: 'B', interval: '3', bar: 8 },
});
