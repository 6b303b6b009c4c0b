/** How a note was set sounding; a hammer-on, a pull-off and a slide from a held note are begun by the fretting hand. */
export type Attack = 'pick' | 'hammer' | 'pull' | 'slide';
/** Begun by the fretting hand on the string of the note before, without a slide. */
export type Slur = Extract<Attack, 'hammer' | 'pull'>;

export const isSlurred = (attack: Attack | undefined): attack is Slur =>
  attack === 'hammer' || attack === 'pull';
