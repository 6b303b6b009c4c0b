'use client';
import Link from 'next/link';
import { readChart } from '@/core/chart';
import { unwrap } from '@/core/shared';
import { chartFacts } from './chartFacts';
import { TypesetChart } from './TypesetChart';

/** The chart alone, for paper: white, large, nothing around it. */
export function PrintChart({ id, text }: { id: string; text: string }) {
  const chart = unwrap(readChart(text));
  return (
    <main data-theme="noon" className="sheet min-h-dvh bg-white text-ink">
      <div className="mx-auto max-w-[860px] px-8 py-6">
        <p className="no-print mb-4 flex gap-6 text-soft">
          <Link className="underline" href={`/charts/${id}`}>
            Back to the chart
          </Link>
          <button type="button" className="underline" onClick={() => window.print()}>
            Print
          </button>
        </p>
        <h1 className="text-[36px] leading-[44px] font-[640] tracking-tight">{chart.title || 'Untitled'}</h1>
        <p className="mb-6 text-lg text-soft">{chartFacts(chart).summary}</p>
        <div className="print-wide">
          <TypesetChart chart={chart} wrongBar={null} />
        </div>
      </div>
    </main>
  );
}
