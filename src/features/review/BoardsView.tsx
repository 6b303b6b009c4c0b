import type { Judgement } from '@/core/review';
import type { PlanWords } from '@/core/plan';
import { MutedBandBoard } from './MutedBandBoard';
import { PhrasesBoard } from './PhrasesBoard';
import { Coverage } from './Coverage';
import { LandingsBoard } from './LandingsBoard';
import { RestBoard, TurningBoard } from './RestBoards';
import { ApproachesBoard, FunctionBoard, LineBoard, StartsBoard } from './MoreBoards';
import { NeckBoard } from './NeckBoard';
import { HeightBoard } from './HeightBoard';
import { LeadInBoard, LevelsBoard, SpelledBoard } from './SpelledBoard';
import { SuperimposedBoard } from './SuperimposedBoard';
import { TimeBoard } from './TimeBoard';

type Props = {
  judgement: Judgement;
  plan: PlanWords;
  kind: string | null;
  onKind: (kind: string | null) => void;
  onHear: (beat: number) => void;
  onNote: (index: number) => void;
};

/** Every board of a take, each a picture and a table. */
export function BoardsView({ judgement, plan, kind, onKind, onHear, onNote }: Props) {
  const { report, marks, timeline } = judgement;
  const judged = report.mutedBand.segments.filter(({ verdict }) => verdict !== 'silent');
  const heard = judged.filter(({ verdict }) => verdict === 'heard').length;
  const missing = report.coverage.reduce(
    (sum, { missing: tones, judged: enough }) => sum + (enough ? tones.length : 0),
    0,
  );
  return (
    <>
      <h1 className="mb-5 text-[22px] leading-[30px] font-[480] tracking-tight text-soft sm:text-[25px] sm:leading-8">
        {heard} of {judged.length} chords are heard without the band.{' '}
        <b className="font-[620] text-ink">
          {missing === 0
            ? 'No tone of the plan was left out where there was enough to judge.'
            : `${missing} ${missing === 1 ? 'tone of the plan was' : 'of the plan’s tones were'} never played.`}
        </b>
      </h1>
      <div className="grid grid-cols-[minmax(0,1fr)] gap-x-12 gap-y-9 lg:grid-cols-[minmax(0,752fr)_minmax(280px,416fr)]">
        {plan.overlay && (
          <SuperimposedBoard judgement={judgement} overlay={plan.overlay} tempo={timeline.tempo} />
        )}
        <Coverage report={report} />
        <NeckBoard judgement={judgement} />
        <SpelledBoard report={report} timeline={timeline} />
        <LevelsBoard
          request={{ chart: judgement.chart, tempo: timeline.tempo, plan: judgement.plan, report }}
        />
        <MutedBandBoard report={report} timeline={timeline} onHear={onHear} onNote={onNote} />
        <TimeBoard report={report} />
        <PhrasesBoard report={report} timeline={timeline} />
        <ApproachesBoard report={report} />
        <LeadInBoard report={report} />
        <StartsBoard report={report} timeline={timeline} />
        <LineBoard report={report} />
        <HeightBoard report={report} plan={plan} />
        <div className="max-w-[320px]">
          <LandingsBoard report={report} marks={marks} kind={kind} onKind={onKind} />
        </div>
        <FunctionBoard report={report} />
        <TurningBoard report={report} />
        <RestBoard report={report} timeline={timeline} onHear={onHear} />
      </div>
    </>
  );
}
