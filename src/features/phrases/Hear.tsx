'use client';
import type { useHearing } from '../shell/useHearing';
import { soundOf } from './phraseView';
import type { PhraseNote } from '@/core/phrases';

export type Hearing = ReturnType<typeof useHearing>;
export type HeardLine = {
  readonly id: string;
  readonly chartText: string;
  readonly tempo: number;
  readonly notes: readonly PhraseNote[];
};

/** Lets a line be heard with the band under it; the same again stops it. */
export const hearLine = ({ hear }: Hearing, { id, chartText, tempo, notes }: HeardLine): void =>
  void hear(id, (rate) => ({ ...soundOf(chartText, tempo, notes), rate }));

/** The beat of a line that sounds; null while it does not. */
export const beatOf = ({ state }: Hearing, id: string): number | null =>
  state.id === id && state.phase === 'sounding' ? state.beat : null;

/** What the button of a line says now. */
export function hearWords({ state }: Hearing, id: string): string {
  if (state.id !== id || state.phase === 'silent') return 'hear it';
  return state.phase === 'preparing' ? 'preparing' : 'stop';
}

export const HearButton = ({ hearing, line, name }: { hearing: Hearing; line: HeardLine; name: string }) => (
  <button
    type="button"
    className="quiet"
    aria-label={`${hearWords(hearing, line.id)}: ${name}`}
    onClick={() => hearLine(hearing, line)}
  >
    {hearWords(hearing, line.id)}
  </button>
);

type HearAndKeepProps = { hearing: Hearing; line: HeardLine; name: string; onKeep: () => void };

/** A line that was made of a phrase, to be heard and to be kept as a phrase of its own. */
export const HearAndKeep = ({ hearing, line, name, onKeep }: HearAndKeepProps) => (
  <span className="ml-auto flex justify-end gap-3 text-[15px]">
    <HearButton hearing={hearing} line={line} name={name} />
    <button type="button" className="quiet" aria-label={`Keep it: ${name}`} onClick={onKeep}>
      keep it
    </button>
  </span>
);
