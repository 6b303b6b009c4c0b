import { ChordSymbol } from '@/ui/ChordSymbol';
import type { ChartFacts } from './chartFacts';

/** What the machine reads in the chart. */
export function ChartFactsList({ facts }: { facts: ChartFacts }) {
  return (
    <dl className="mt-6 grid max-w-[536px] grid-cols-[128px_1fr] gap-y-1.5 border-t border-line pt-2.5 text-soft">
      <dt className="text-dim">Read as</dt>
      <dd>{facts.readAs}</dd>
      <dt className="text-dim">Home scale</dt>
      <dd>{facts.home}</dd>
      <dt className="text-dim">Functions</dt>
      <dd className="flex flex-wrap gap-x-5 gap-y-1">
        {facts.functions.map(({ chord, degree }) => (
          <span key={chord + degree}>
            <ChordSymbol symbol={chord} /> <b className="text-ink">{degree}</b>
          </span>
        ))}
      </dd>
      {facts.brackets !== '' && (
        <>
          <dt className="text-dim">Together</dt>
          <dd>{facts.brackets}</dd>
        </>
      )}
      <dt className="text-dim">Changes</dt>
      <dd>{facts.changes}</dd>
    </dl>
  );
}
