'use client';
import { useState, type ReactNode } from 'react';
import { Select } from '@/ui/controls';
import type { Otherwise } from './compareSides';
import type { ReviewData } from './useReview';
import { withHome } from '@/core/plan';
import { HomeScalePicker } from '@/ui/HomeScalePicker';
import { homeNameOf } from '@/core/chart';
import { PLAN_CHOICES } from './planChoices';

type Props = { data: ReviewData; value: Otherwise | null; onChange: (value: Otherwise | null) => void };

const MOST_SHIFT_MS = 5_000;
const shiftFrom = (text: string): number =>
  Math.max(-MOST_SHIFT_MS, Math.min(MOST_SHIFT_MS, Math.round(Number(text) || 0)));

/**
 * The same notes by another plan, over other chords, or begun elsewhere: nothing is kept, it only stands
 * beside.
 */
export function JudgeOtherwise({ data, value, onChange }: Props) {
  const { plan, chartText } = data.take;
  const now = value ?? { plan, chartText, shiftMs: 0 };
  const [text, setText] = useState(chartText);
  return (
    <section aria-label="Judge it otherwise" className="mt-5 border-t border-line pt-3">
      <h2 className="heading">Judge it otherwise</h2>
      <Row name="Plan">
        <Select
          label="Plan"
          value={now.plan.id}
          options={PLAN_CHOICES}
          onChange={(id) => onChange({ ...now, plan: { ...now.plan, id } })}
        />
      </Row>
      <Row name="Home scale">
        <HomeScalePicker
          value={now.plan.home}
          fallback={homeNameOf(chartText)}
          onChange={(home) => onChange({ ...now, plan: withHome(now.plan, home) })}
        />
      </Row>
      <Row name="Start">
        <span className="flex items-center gap-2">
          <input
            type="number"
            step={10}
            className="field w-24 !py-1 text-ink"
            value={now.shiftMs}
            onChange={({ target }) => onChange({ ...now, shiftMs: shiftFrom(target.value) })}
          />{' '}
          ms later
        </span>
      </Row>
      <details className="mt-1 text-[15px]">
        <summary className="cursor-pointer text-dim hover:text-ink">Over other chords</summary>
        <textarea
          aria-label="Other chords"
          className="field mt-1 h-32 w-full font-mono text-sm text-ink"
          spellCheck={false}
          value={text}
          onChange={(event) => setText(event.target.value)}
          onBlur={() => {
            if (text !== now.chartText) onChange({ ...now, chartText: text });
          }}
        />
      </details>
      {value && (
        <button
          type="button"
          className="quiet mt-2"
          onClick={() => {
            setText(chartText);
            onChange(null);
          }}
        >
          Back to the takes
        </button>
      )}
    </section>
  );
}

const Row = ({ name, children }: { name: string; children: ReactNode }) => (
  <label className="grid grid-cols-[84px_1fr] items-center gap-2 py-1 text-[15px] text-dim">
    {name}
    {children}
  </label>
);
