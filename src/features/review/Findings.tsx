import type { Finding } from '@/core/findings';
import { ChordWords } from '@/ui/ChordWords';
import { KeyOf } from '../shell/commands/KeyOf';
import { isPraise } from './reviewWords';

type Props = {
  findings: readonly Finding[];
  bars: number;
  onHear: (throughBar: number) => void;
  /** Takes up what it asks for. */ onDrill: (finding: Finding) => void;
};

const FINDING_KEYS = ['review.form.finding1', 'review.form.finding2', 'review.form.finding3'] as const;

const barsOf = ([first, last]: readonly [number, number]): string =>
  first === last ? `bar ${first}` : `bars ${first}–${last}`;

/** The first things to say, each with its counts and a way to hear where it happened. */
export function Findings({ findings, bars, onHear, onDrill }: Props) {
  if (findings.length === 0)
    return (
      <p className="border-t border-line py-3 text-soft">
        No finding has the counts to be certain. Play more choruses, or a faster tempo.
      </p>
    );
  return (
    <section aria-label="Findings">
      <h2 className="sr-only">Findings</h2>
      <ol>
        {findings.map((finding, index) => {
          const [first] = finding.where.bars;
          return (
            <li
              key={`${finding.kind} ${finding.title}`}
              className="grid grid-cols-[28px_1fr] border-t border-line pt-2 pb-2.5 text-[15px] leading-5"
            >
              <KeyOf
                command={FINDING_KEYS[index] ?? 'review.form.finding1'}
                className="mt-0.5 h-5 w-5 self-start !p-0"
              />
              <div>
                {!isPraise(finding) && (
                  <h3 className="text-[17px] leading-6 font-[640]">
                    <ChordWords text={finding.title} />
                  </h3>
                )}
                <p className="text-soft">
                  <ChordWords text={[finding.sentence, finding.detail].filter(Boolean).join(' ')} />
                </p>
                {first !== undefined && (
                  <button
                    type="button"
                    className="font-[580] text-now hover:underline"
                    onClick={() => onHear(first)}
                  >
                    Hear it: chorus {Math.floor((first - 1) / bars) + 1}, bar {((first - 1) % bars) + 1}
                  </button>
                )}
                {!isPraise(finding) && (
                  <p className="text-dim">
                    <button
                      type="button"
                      className="text-soft underline hover:text-ink"
                      onClick={() => onDrill(finding)}
                    >
                      Drill it
                    </button>
                    : {finding.drill.target} at {finding.drill.tempo}, {barsOf(finding.drill.span)}
                  </p>
                )}
              </div>
            </li>
          );
        })}
      </ol>
    </section>
  );
}
