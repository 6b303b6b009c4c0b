import Link from 'next/link';
import { PLANS, type PlanId } from '@/core/plan';
import { Shell } from '../shell/Shell';
import { TakeProfile, type Profile } from './TakeProfile';

export type TakeRow = {
  readonly id: string; readonly number: number; readonly title: string; readonly when: string; readonly planId: PlanId; readonly tempo: number;
  readonly met: number; readonly judged: number; readonly heard: number; readonly segments: number; readonly profile: Profile;
};

/** Every take with its walk drawn small; one press opens its review. */
export function TakesScreen({ takes, older = null }: { takes: readonly TakeRow[]; /** There are takes before this number. */ older?: number | null }) {
  if (takes.length === 0) return <NoTakes />;
  return (
    <Shell place="Takes" footer={<><Link href="/record" className="go text-base">Record another</Link><span>Takes stay on this computer.</span></>}>
      <div className="mx-4 pt-4 pb-8 sm:mx-8">
        <h1 className="mb-4 text-[25px] leading-8 tracking-tight text-soft">{opening(takes)}</h1>
        <div className="hidden grid-cols-[44px_216px_minmax(0,1fr)_128px_150px_72px] gap-x-4 pb-2 text-sm text-dim sm:grid" aria-hidden="true">
          <span>take</span><span>tune and plan</span><span>height, change by change</span><span className="text-right">met on time</span><span className="text-right">heard, band muted</span><span className="text-right">tempo</span>
        </div>
        <ul>{takes.map((take) => <li key={take.id}><Row take={take} /></li>)}</ul>
        {older !== null && <p className="border-t border-line py-4"><Link className="quiet" href={`/takes?before=${older}`}>Older takes</Link></p>}
      </div>
    </Shell>
  );
}

function opening(takes: readonly TakeRow[]) {
  const latest = takes[0]!;
  const first = takes.findLast((take) => take.title === latest.title)!;
  if (first === latest) return <>{latest.title}: <b className="font-[620] text-ink">{latest.heard} of {latest.segments} chords are heard with the band muted.</b></>;
  return <>In its first take here {first.heard} of {first.segments} chords of {latest.title} came through without the band, <b className="font-[620] text-ink">in the last one {latest.heard} of {latest.segments}.</b></>;
}

function Row({ take }: { take: TakeRow }) {
  return (
    <Link href={`/takes/${take.id}`} className="grid grid-cols-[44px_minmax(0,1fr)_auto] items-center gap-x-4 border-t border-line py-2 hover:bg-row sm:grid-cols-[44px_216px_minmax(0,1fr)_128px_150px_72px]">
      <span className="text-2xl font-[560] text-soft">{take.number}</span>
      <span className="leading-5"><b className="block font-[560] text-ink">{take.title}</b><span className="text-sm text-dim">{take.when}, {PLANS[take.planId].short}</span></span>
      <span className="hidden sm:block"><TakeProfile profile={take.profile} /></span>
      <Count value={take.met} of={take.judged} name="changes met on time" />
      <span className="hidden sm:block"><Count value={take.heard} of={take.segments} name="chords heard with the band muted" /></span>
      <span className="hidden text-right text-[22px] font-[560] text-soft sm:block">{take.tempo}</span>
    </Link>
  );
}

const Count = ({ value, of, name }: { value: number; of: number; name: string }) => (
  <span className="block text-right text-2xl font-[640] text-soft">{value}<span className="text-[15px] font-normal text-dim"> of {of}</span><span className="sr-only"> {name}</span></span>
);

function NoTakes() {
  return (
    <Shell place="Takes" footer={<span>Takes stay on this computer.</span>}>
      <div className="mx-4 mt-16 sm:mx-8">
        <h1 className="text-[64px] leading-[76px] font-[640] tracking-tight">No takes yet.</h1>
        <p className="mt-3 text-[28px] leading-10 text-soft">One take shows which changes you meet, and which pass you by.</p>
        <p className="mt-8"><Link href="/record" className="go text-2xl">Record the first one</Link></p>
      </div>
    </Shell>
  );
}
