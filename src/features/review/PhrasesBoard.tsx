import type { Report } from '@/core/analyse';
import type { Timeline } from '@/core/chart';
import { PhraseEndMark } from '@/ui/form/laneMarks';
import { acrossForm, FormGrid, WIDTH } from './FormGrid';

type Props = { report: Report; timeline: Timeline };

/** Phrases across the form, chorus by chorus, with how each ends. */
export function PhrasesBoard({ report, timeline }: Props) {
  const { phrases, summary } = report;
  const count = (end: string) => phrases.filter((phrase) => phrase.end === end).length;
  const crossing = phrases.filter((phrase) => phrase.changesCrossed > 0).length;
  const x = acrossForm(timeline);
  const height = 8 + summary.choruses * 36;
  return (
    <section aria-label="Phrases" className="min-w-0">
      <h2 className="text-[15px] text-dim">
        <b className="mr-3 text-base text-ink">Phrases</b>
        {phrases.length}: {count('home')} come home, {count('floats')} float, {count('asks')} ask; {crossing}{' '}
        cross a change
      </h2>
      <div className="overflow-x-auto">
        <svg
          viewBox={`0 0 ${WIDTH} ${height}`}
          className="mt-2 w-full min-w-[600px]"
          role="img"
          aria-label="Phrases by chorus and how each ends"
        >
          <FormGrid timeline={timeline} choruses={summary.choruses} pitch={36} withChords={false} />
          {phrases.flatMap((phrase) =>
            pieces(phrase.startBeat, phrase.endBeat, timeline, summary.choruses).map(
              ({ chorus, from, to, first, last }) => {
                const y = chorus * 36 + 20;
                return (
                  <g key={`${phrase.startBeat}-${chorus}`} stroke="var(--h1)" strokeWidth={3}>
                    <line x1={x(from)} y1={y} x2={x(to) - 4} y2={y} />
                    {first && <line x1={x(from)} y1={y - 6} x2={x(from)} y2={y + 6} strokeWidth={2} />}
                    {last && <PhraseEndMark x={x(to) - 4} y={y} end={phrase.end} />}
                  </g>
                );
              },
            ),
          )}
        </svg>
      </div>
    </section>
  );
}

/** A phrase cut where a chorus ends. */
function pieces(start: number, end: number, { formBeats }: Timeline, choruses: number) {
  const cut = [];
  for (let chorus = 0; chorus < choruses; chorus++) {
    const [from, to] = [Math.max(start, chorus * formBeats, 0), Math.min(end, (chorus + 1) * formBeats)];
    if (to - from > 0.05)
      cut.push({
        chorus,
        from: from - chorus * formBeats,
        to: to - chorus * formBeats,
        first: from === Math.max(0, start),
        last: to === end,
      });
  }
  return cut;
}
