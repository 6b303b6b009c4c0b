import { sinceArrival, type Ladder, type LadderTry } from '@/core/scheduling';

type Props = {
  ladder: Ladder;
  tries: readonly LadderTry[];
  thing: string;
  of: number;
  /** What the running attempt has so far. */ running?: number | null;
};

const MOST_SHOWN = 5;
const MOST_RUNGS = 7;

/**
 * Rungs of a tempo ladder, fastest above, with the latest attempts on each: passed solid, not passed hollow,
 * the running one in the accent.
 */
export function LadderPicture({ ladder, tries, thing, of, running = null }: Props) {
  const from = Math.max(0, Math.min(ladder.rungs.length - MOST_RUNGS, ladder.at - 3));
  const shown = ladder.rungs
    .slice(from, from + MOST_RUNGS)
    .map((tempo, index) => ({ tempo, here: from + index === ladder.at }))
    .reverse();
  const now = sinceArrival(ladder, tries);
  return (
    <section aria-label="Tempo ladder">
      <h2 className="heading !text-sm">
        Tempo ladder: {thing} met, of {of}
      </h2>
      <ol>
        {shown.map(({ tempo, here }) => {
          const own = (here ? now : tries.filter((one) => one.tempo === tempo)).slice(
            -MOST_SHOWN + (here && running !== null ? 1 : 0),
          );
          return (
            <li
              key={tempo}
              className={`flex h-[50px] items-end gap-2.5 border-b pb-1.5 ${here ? 'border-b-[3px] border-now' : 'border-b-2 border-line'}`}
              aria-current={here ? 'step' : undefined}
            >
              <span
                className={
                  here
                    ? 'w-[74px] text-[32px] leading-8 font-[640]'
                    : 'w-[74px] text-[22px] leading-7 font-[560] text-dim'
                }
              >
                {tempo}
              </span>
              {own.map((one, index) => (
                <Chip key={index} one={one} strong={here} />
              ))}
              {here && running !== null && (
                <span className="grid h-6 w-[46px] place-items-center rounded-full border-2 border-now text-[15px] font-[640] text-now">
                  {running}
                </span>
              )}
            </li>
          );
        })}
      </ol>
    </section>
  );
}

function Chip({ one: { met, of, passed }, strong }: { one: LadderTry; strong: boolean }) {
  return (
    <span
      title={`${met} of ${of}, ${passed ? 'passed' : 'not passed'}`}
      className={`grid h-6 w-[46px] place-items-center rounded-full text-[15px] font-[640] ${rungClass(passed, strong)}`}
    >
      {met}
      <span className="sr-only">
        {' '}
        of {of}, {passed ? 'passed' : 'not passed'}
      </span>
    </span>
  );
}

function rungClass(passed: boolean, strong: boolean) {
  if (passed) {
    if (strong) return 'bg-[var(--h0)] text-on';
    return 'bg-[var(--h1)] text-on';
  }
  return 'border-[1.5px] border-[var(--h3)] text-soft';
}
