import { counted } from '../words';
import { defineKind } from '../measure';

const ENOUGH_NOTES = 40;

/** Less than 8 % of the time in rests, counted in beats. */
export const noSpace = defineKind<Record<string, never>>({
  id: 'no-space',
  name: 'no space',
  drill: 'leave-space',
  detect: ({ report: { notes, phrases, summary }, timeline }) => {
    if (notes.length < ENOUGH_NOTES) return [];
    const of = Math.round(summary.choruses * timeline.formBeats);
    const played = phrases.reduce((sum, { startBeat, endBeat }) => sum + endBeat - startBeat, 0);
    const met = Math.min(of, Math.max(0, Math.round(of - played)));
    return [{ where: { bars: [] }, met, of, limit: 0.08, worth: 0.5, facts: {} }];
  },
  say: ({ met, of }) => ({
    title: 'Room to breathe',
    sentence: `You rested for ${counted(met, 'beat')} in ${of}.`,
    advice: 'Play two bars, then rest for one.',
  }),
  example: {},
});
