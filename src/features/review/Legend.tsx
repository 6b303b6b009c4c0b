import type { ReactNode } from 'react';
import type { LandingMark } from '@/core/analyse';
import { LANDING_WORDS, LandingLine } from '@/ui/form/LandingLine';
import { Pill } from '@/ui/form/Pill';

const HEIGHTS: [number, string, string][] = [
  [0, '3', 'chord tone'],
  [1, '9', 'colour'],
  [2, '4', 'scale'],
  [3, '♭3', 'leading in'],
  [4, '7', 'outside'],
];
const MARKS: LandingMark[] = ['target', 'target-late', 'chord-tone', 'not-met', 'rest'];

/** What the marks mean, one line. */
export function Legend({ hasChanges }: { hasChanges: boolean }) {
  return (
    <p className="mt-2 flex flex-wrap items-center gap-x-3.5 gap-y-1 text-sm text-soft">
      {HEIGHTS.map(([tier, label, word]) => (
        <Sign key={word} word={word} width={30}>
          <Pill x={0} y={8} width={28} height={14} tier={tier} label={label} />
        </Sign>
      ))}
      <Sign word="into its target" width={30}>
        <path d="M4 9V5H22V10" fill="none" stroke="var(--soft)" strokeWidth={1.25} />
        <path d="M19 9h6l-3 4z" fill="var(--soft)" />
      </Sign>
      {hasChanges && <span className="text-dim">a change met by</span>}
      {hasChanges &&
        MARKS.map((mark) => (
          <Sign key={mark} word={LANDING_WORDS[mark]} width={15}>
            <LandingLine x={8} from={0} to={17} mark={mark} scale={0.9} />
          </Sign>
        ))}
    </p>
  );
}

function Sign({ word, width, children }: { word: string; width: number; children: ReactNode }) {
  return (
    <span className="inline-flex items-center gap-1.5 whitespace-nowrap">
      <svg width={width} height={17} aria-hidden="true">
        {children}
      </svg>
      {word}
    </span>
  );
}
