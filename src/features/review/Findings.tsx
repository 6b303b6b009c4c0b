import type { ReactNode } from 'react';
import type { Finding, FirstPage } from '@/core/findings';
import { ChordWords } from '@/ui/ChordWords';
import { KeyOf } from '../shell/commands/KeyOf';

type Props = {
  page: FirstPage;
  /** Bars of the form. */ bars: number;
  /** Hears a bar, counted from 1 through all choruses, with those around it. */
  onHear: (throughBar: number) => void;
  /** Takes up what it asks for. */ onDrill: (finding: Finding) => void;
};

const FINDING_KEYS = ['review.form.finding1', 'review.form.finding2', 'review.form.finding3'] as const;
const MOST_ALSO = 2;

/** What to practise with where it happened, then what else was noticed, and what is not certain. */
export function Findings({ page, bars, onHear, onDrill }: Props) {
  const { strength, progress, practise, step, also, uncertain } = page;
  return (
    <section aria-label="Findings">
      <h2 className="sr-only">Findings</h2>
      {progress && (
        <p className="border-t border-line py-2 text-[15px] leading-5 text-soft">
          <ChordWords text={progress.sentence} />
        </p>
      )}
      {practise && (
        <ol>
          {[practise, ...also.slice(0, MOST_ALSO)].map((finding, index) => (
            <li
              key={`${finding.kind} ${finding.title}`}
              className="grid grid-cols-[28px_1fr] border-t border-line pt-2 pb-2.5 text-[15px] leading-5"
            >
              <KeyOf
                command={FINDING_KEYS[index] ?? 'review.form.finding1'}
                className="mt-0.5 h-5 w-5 self-start !p-0"
              />
              <OneFinding
                finding={finding}
                label={index === 0 ? 'To practise' : 'Also noticed'}
                bars={bars}
                onHear={onHear}
                onDrill={onDrill}
              />
            </li>
          ))}
        </ol>
      )}
      {step && (
        <Labelled label="Next step">
          <p className="text-[17px] leading-6 font-[640]">
            <ChordWords text={step.sentence} />
          </p>
        </Labelled>
      )}
      {strength && (
        <Labelled label="Went well">
          <HearBar throughBar={strength.bar} bars={bars} onHear={onHear} />
        </Labelled>
      )}
      {uncertain.length > 0 && (
        <Labelled label="Also noticed, not certain">
          <ul className="text-soft">
            {uncertain.map(({ kind, title, met, of }) => (
              <li key={`${kind} ${title}`}>
                <ChordWords text={title} />: {met} of {of}
              </li>
            ))}
          </ul>
        </Labelled>
      )}
    </section>
  );
}

const Labelled = ({ label, children }: { label: string; children: ReactNode }) => (
  <div className="border-t border-line pt-2 pb-2.5 text-[15px] leading-5">
    <h3 className="text-dim">{label}</h3>
    {children}
  </div>
);

type OneProps = Omit<Props, 'page'> & { finding: Finding; label: string };

function OneFinding({ finding, label, bars, onHear, onDrill }: OneProps) {
  const { title, sentence, detail, advice, before, drill, where } = finding;
  const [first] = where.bars;
  return (
    <div>
      <p className="text-dim">{label}</p>
      <h3 className="text-[17px] leading-6 font-[640]">
        <ChordWords text={title} />
      </h3>
      <p className="text-soft">
        <ChordWords text={[sentence, detail].filter(Boolean).join(' ')} />
      </p>
      {advice && (
        <p className="font-[580]">
          <ChordWords text={advice} />
        </p>
      )}
      {before && (
        <p className="text-soft">
          Done well: {finding.met} of {finding.of} now, {before.met} of {before.of} before.
        </p>
      )}
      {first !== undefined && <HearBar throughBar={first} bars={bars} onHear={onHear} />}
      {drill && (
        <p className="text-dim">
          <button
            type="button"
            className="text-soft underline hover:text-ink"
            onClick={() => onDrill(finding)}
          >
            Drill it
          </button>{' '}
          at {drill.tempo}, {barsOf(drill.span)}
        </p>
      )}
    </div>
  );
}

const barsOf = ([first, last]: readonly [number, number]): string =>
  first === last ? `bar ${first}` : `bars ${first}–${last}`;

const HearBar = ({
  throughBar,
  bars,
  onHear,
}: {
  throughBar: number;
  bars: number;
  onHear: (throughBar: number) => void;
}) => (
  <button
    type="button"
    className="block font-[580] text-now hover:underline"
    onClick={() => onHear(throughBar)}
  >
    Hear it: chorus {Math.floor((throughBar - 1) / bars) + 1}, bar {((throughBar - 1) % bars) + 1}
  </button>
);
