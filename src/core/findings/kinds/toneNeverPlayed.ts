import { counted } from '../words';
import { defineKind } from '../measure';
import { intervalWord, times, typeset } from '../../music';
import { neverPlayed, type NeverPlayedFacts } from './neverPlayed';

/** A third or a seventh that never sounds. */
export const toneNeverPlayed = defineKind<NeverPlayedFacts>({
  id: 'tone-never-played',
  name: 'a tone never played',
  drill: ({ tone }) => (tone === 'seventh' ? 'ladder-sevenths' : 'ladder-thirds'),
  isNoProgress: true,
  detect: (context) => neverPlayed(context, 'guide-tone'),
  say: ({ met, of, facts: { chord, note, interval, bar } }) => ({
    title: `${typeset(note)} over ${typeset(chord)}`,
    sentence: `Over ${typeset(chord)} you ${met === 0 ? 'never played' : 'played'} ${typeset(note)}, its ${intervalWord(interval)},${met === 0 ? '' : ` ${times(met)}`} in ${counted(of, 'note')}.`,
    advice: `Start with ${typeset(note)} in bar ${bar}.`,
  }),
  example: { chord: 'Bb7', note: 'D', interval: '3', bar: 1 },
});
