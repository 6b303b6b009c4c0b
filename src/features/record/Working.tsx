import { Shell } from '../shell/Shell';

export type Work = { readonly title: string; readonly what: string; readonly share: number | null };

/** A long job with its progress and a way out. */
export function Working({ work, onCancel }: { work: Work; onCancel: () => void }) {
  const percent = work.share === null ? null : Math.round(work.share * 100);
  return (
    <Shell
      place="Record"
      footer={
        <>
          <button type="button" className="quiet" onClick={onCancel}>
            Cancel
          </button>
          <span>Nothing is kept until it is done.</span>
        </>
      }
    >
      <div className="mx-4 mt-24 sm:mx-8">
        <h1 className="text-[64px] leading-[72px] font-[640] tracking-tight">{work.title}</h1>
        <p className="mt-3 text-2xl text-soft" role="status">
          {work.what}
          {percent === null ? '' : `, ${percent} %`}
        </p>
        <div
          className="mt-6 h-2 max-w-[760px] bg-line"
          role="progressbar"
          aria-label={work.what}
          aria-valuemin={0}
          aria-valuemax={100}
          aria-valuenow={percent ?? undefined}
        >
          <div className="h-2 bg-now" style={{ width: `${percent ?? 8}%` }} />
        </div>
      </div>
    </Shell>
  );
}
