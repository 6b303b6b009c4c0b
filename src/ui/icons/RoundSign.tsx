import { Pause, Play, Square, type LucideIcon } from 'lucide-react';

const SIGNS: Readonly<Record<'play' | 'pause' | 'stop', LucideIcon>> = {
  play: Play,
  pause: Pause,
  stop: Square,
};
type Props = { name: keyof typeof SIGNS };

/** The one sign of a footer that is pressed without looking: play and pause filled, stop in a ring. */
export function RoundSign({ name }: Props) {
  const Sign = SIGNS[name];
  const isStop = name === 'stop';
  return (
    <span
      className={`grid h-8 w-8 place-items-center rounded-full border-2 border-now ${isStop ? 'text-now' : 'bg-now text-on'}`}
    >
      <Sign size={isStop ? 12 : 15} fill="currentColor" strokeWidth={1.5} aria-hidden />
    </span>
  );
}
