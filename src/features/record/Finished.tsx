'use client';
import { useEffect, useState } from 'react';
import type { LandingMark, Report } from '@/core/analyse';
import { oneLanding, type FirstPage, type OneLanding } from '@/core/findings';
import { Tip } from '@/ui/controls';
import type { EndedTake as Ended, Sitting } from '@/audio/sitting';
import { reviewAnswer } from '@/audio/persistence/serverTakes';
import { ChordWords } from '@/ui/ChordWords';
import { KeyOf } from '../shell/commands/KeyOf';
import { Far, type Way } from '../shell/Far';
import { OneLandingPicture } from './OneLandingPicture';

type EndedTake = Omit<Ended, 'session'>;
type Answer = {
  readonly take: { readonly number: number };
  readonly report: Report;
  readonly marks: readonly LandingMark[];
  readonly firstPage: FirstPage;
};
export type Result = {
  readonly number: number;
  readonly landing: OneLanding | null;
  /** What went well, then what to practise or the next step. */
  readonly said: string;
  readonly residualMs: number | null;
  readonly loop: readonly [number, number] | null;
};

/** What the take says in one look; null until the server has judged it. */
export function useResult(take: EndedTake | null): Result | null {
  const [result, setResult] = useState<{ id: string; result: Result } | null>(null);
  const id = take?.kept ? take.id : null;
  useEffect(() => {
    if (id === null) return;
    let gone = false;
    reviewAnswer<Answer>(id)
      .then(({ take: { number }, report, marks, firstPage }) => {
        if (!gone) setResult({ id, result: resultOf(number, report, marks, firstPage) });
      })
      .catch(() => undefined);
    return () => {
      gone = true;
    };
  }, [id]);
  return result !== null && result.id === id ? result.result : null;
}

/** The landing, the first page beside it, and the two bars that need it most. */
export function resultOf(
  number: number,
  report: Report,
  marks: readonly LandingMark[],
  { strength, practise, step }: FirstPage,
): Result {
  const landing = oneLanding(report, marks);
  const bars = Math.max(1, ...report.changes.map((change) => change.bar));
  const before = landing ? Math.max(1, landing.bar - 1) : 1;
  return {
    number,
    landing,
    said: [strength?.sentence, practise?.sentence, practise?.advice, step?.sentence]
      .filter(Boolean)
      .join(' '),
    residualMs: report.time.offsetMs,
    loop: landing ? [before, Math.min(bars, Math.max(before + 1, landing.bar))] : null,
  };
}

type Props = {
  take: EndedTake;
  result: Result | null;
  /** Where the next take comes by itself: how long until its bar 1. */
  next: Pick<Sitting, 'countdown' | 'isCounting'> | null;
  again: Way;
  stay: Way;
  discard: Way;
  loop: Way | null;
  review: () => void;
  setup: () => void;
};

/** Between two takes: the answer, large; it stays while the next one is counted in. */
export function Finished(props: Props) {
  const { take, result, next, again, stay, discard, loop } = props;
  const landing = result?.landing ?? null;
  const [soft, bold] = resultWords(landing, result, take);
  return (
    <Far
      meta={<TakeFacts take={take} result={result} />}
      soft={<ChordWords text={soft} />}
      bold={<ChordWords text={bold} />}
      beside={landing && <OneLandingPicture landing={landing} />}
      press={next ? stay : again}
      hold={discard}
      double={next ? undefined : (loop ?? undefined)}
      more={<MoreWays {...props} />}
    >
      {result?.said && (
        <p className="mt-8 max-w-[820px] text-[24px] leading-9 text-soft">
          <ChordWords text={result.said} />
        </p>
      )}
      {next && <Countdown sitting={next} />}
    </Far>
  );
}

const GRID_TITLE =
  'How the whole take lies against the grid once the latency is taken out: it may be your own time';

function TakeFacts({ take, result }: Pick<Props, 'take' | 'result'>) {
  const away = result?.residualMs ?? 0;
  return (
    <>
      <span>{storedWords(result, take)}</span>
      <span>
        {take.title}, {take.passes} {take.passes === 1 ? 'chorus' : 'choruses'} at {take.tempo}
      </span>
      {take.cut && <span className="text-ink">the input was disconnected; what was played is here</span>}
      {Math.abs(away) >= 1 && (
        <Tip words={GRID_TITLE}>
          <button type="button" className="cursor-help">
            {Math.abs(away).toFixed(0)} ms {away > 0 ? 'behind' : 'ahead of'} the grid
          </button>
        </Tip>
      )}
    </>
  );
}

function MoreWays({ take, next, review, setup }: Props) {
  return (
    <>
      {take.kept && (
        <button type="button" onClick={review} className="hover:text-ink">
          <KeyOf command="play.review" className="mr-2" />
          open the review
        </button>
      )}
      {!next && (
        <button type="button" onClick={setup} className="ml-6 hover:text-ink">
          change the setup
        </button>
      )}
    </>
  );
}

/** The bar that runs out into bar 1 of the next take. */
function Countdown({ sitting }: { sitting: Pick<Sitting, 'countdown' | 'isCounting'> }) {
  const [{ left, of }, setLeft] = useState(() => sitting.countdown());
  useEffect(() => {
    const timer = setInterval(() => setLeft(sitting.countdown()), 100);
    return () => clearInterval(timer);
  }, [sitting]);
  const counting = sitting.isCounting();
  const whole = Math.ceil(left);
  return (
    <div className="mt-auto pt-8" role="timer" data-counting={counting}>
      <p className="text-[26px] leading-10 font-[580]">
        Again from the top in {whole} {whole === 1 ? 'second' : 'seconds'}
      </p>
      <div className="mt-2 h-2 max-w-[760px] bg-line">
        <div className="h-2 bg-now" style={{ width: `${Math.round((left / of) * 100)}%` }} />
      </div>
    </div>
  );
}

function storedWords(result: Result | null, take: EndedTake) {
  if (result) return `Take ${result.number} kept`;
  if (take.kept || take.judging) return 'Take kept';
  return 'Kept on this computer; the server has it when it answers';
}

function resultWords(
  landing: OneLanding | null,
  result: Result | null,
  take: EndedTake,
): [soft: string, bold: string] {
  if (landing) return [landing.soft, landing.bold];
  if (result) return ['No change was played', 'that could be judged.'];
  if (take.judging) return ['Keeping the last notes,', 'one moment.'];
  if (take.kept) return ['Judging it,', 'one moment.'];
  return ['The take is safe.', 'It is judged when the server answers.'];
}
