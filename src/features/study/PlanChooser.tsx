'use client';
import { useState } from 'react';
import type { Chart } from '@/core/chart';
import {
  DISAGREEMENTS,
  HEIGHT_INTENTS,
  PLAN_IDS,
  PLANS,
  RUNGS,
  type HeightIntent,
  type PlanId,
  type PlanWords,
  type Preset,
  type Where,
} from '@/core/plan';
import { typeset } from '@/core/findings';
import { Checkbox, Select, Tip } from '@/ui/controls';
import { OverlayDialog } from './OverlayDialog';

type Scope = 'form' | 'degree' | 'chord' | 'section' | 'chorus';
type PartPlace = {
  readonly chord: string | null;
  readonly degree: string | null;
  readonly section: string | null;
};
type Props = {
  plan: PlanWords;
  presets: readonly Preset[];
  place: PartPlace;
  chart: Chart;
  onChange: (plan: PlanWords) => void;
};

const SETTABLE: Partial<Record<PlanId, 'target' | 'degrees' | 'mode'>> = {
  'single-target': 'target',
  'by-degrees': 'degrees',
  'parallel-mode': 'mode',
};

/**
 * The school for the next take, for the whole form or a part of it: why it is taught, and what it is bad at.
 */
export function PlanChooser(props: Props) {
  const { plan, place, onChange } = props;
  const [scope, setScope] = useState<Scope>('form');
  const where = whereOf(scope, place);
  const isHere = (part: { readonly where: Where }) => JSON.stringify(part.where) === JSON.stringify(where);
  const own = where ? plan.parts?.find(isHere)?.plan.id : plan.id;
  const choose = (id: PlanId) => {
    if (!where) return onChange({ ...keptParts(plan), id });
    const others = (plan.parts ?? []).filter((part) => !isHere(part));
    onChange({ ...plan, parts: [...others, { where, plan: { id } }] });
  };
  return (
    <section aria-label="Plan for the next take">
      <div className="flex items-baseline justify-between gap-2">
        <h2 className="heading">Plan for the next take</h2>
        <ScopeChoice scope={scope} place={place} onChange={setScope} />
      </div>
      <ul
        className="grid grid-cols-[128px_minmax(0,1fr)] border-t border-line pt-1 max-sm:grid-cols-2"
        aria-label="Schools"
      >
        {PLAN_IDS.map((id) => (
          <li
            key={id}
            className={`relative ${id === own ? 'before:absolute before:inset-y-1.5 before:left-0 before:w-1 before:bg-now' : ''}`}
          >
            <Tip words={PLANS[id].why}>
              <button
                type="button"
                aria-pressed={id === own}
                onClick={() => choose(id)}
                className={`w-full py-px pl-3 text-left text-[15px] leading-[23px] ${id === own ? 'font-[640] text-ink' : 'text-soft hover:text-ink'}`}
              >
                {PLANS[id].short}
              </button>
            </Tip>
          </li>
        ))}
      </ul>
      {own && (
        <p className="mt-1.5 border-t border-line pt-1.5 text-[14.5px] leading-[19px] text-soft">
          {PLANS[own].why} <span className="text-dim">{PLANS[own].badAt}</span>
        </p>
      )}
      {own && !where && <Setting plan={plan} kind={SETTABLE[own]} onChange={onChange} />}
      <PlanDetails {...props} />
    </section>
  );
}

/** What stays of a plan when another school is chosen for the whole form. */
const keptParts = ({ parts, heights, tonicSix, overlay }: PlanWords): Omit<PlanWords, 'id'> => ({
  ...(parts && { parts }),
  ...(heights && { heights }),
  ...(tonicSix && { tonicSix }),
  ...(overlay && { overlay }),
});

const scopesAt = ({ degree, chord, section }: PartPlace): (readonly [Scope, string])[] => [
  ['form', 'the whole form'],
  ...(degree ? [['degree', `every ${degree}`] as const] : []),
  ...(chord ? [['chord', `every ${typeset(chord)}`] as const] : []),
  ...(section ? [['section', `section ${section}`] as const] : []),
  ['chorus', 'chorus 2'],
];

type ScopeProps = { scope: Scope; place: PartPlace; onChange: (scope: Scope) => void };

function ScopeChoice({ scope, place, onChange }: ScopeProps) {
  return (
    <label className="text-sm text-dim">
      for <Select label="For" look="line" value={scope} options={scopesAt(place)} onChange={onChange} />
    </label>
  );
}

/** Parts of the form by another school, presets, and what belongs to any plan. */
function PlanDetails({ plan, presets, chart, onChange }: Props) {
  const drop = (index: number) =>
    onChange({ ...plan, parts: (plan.parts ?? []).filter((_, place) => place !== index) });
  return (
    <p className="flex flex-wrap gap-x-3 gap-y-1 pt-1.5 text-sm text-soft">
      {(plan.parts ?? []).map((part, index) => (
        <button
          key={JSON.stringify(part.where)}
          type="button"
          className="hover:text-ink"
          onClick={() => drop(index)}
          aria-label={`Remove ${PLANS[part.plan.id].name} ${whereWords(part.where)}`}
        >
          {PLANS[part.plan.id].short} <b className="text-ink">{whereWords(part.where)}</b> ×
        </button>
      ))}
      <label>
        try{' '}
        <Select
          label="Presets for this form"
          look="line"
          className="max-w-[186px]"
          value={-1}
          placeholder="what suits this form"
          options={presets.map(({ name }, index) => [index, name] as const)}
          onChange={(index) => {
            const preset = presets[index];
            if (preset) onChange(wordsOf(preset));
          }}
        />
      </label>
      <label className="flex items-center gap-1.5">
        <Checkbox
          checked={plan.tonicSix ?? plan.id === 'sixth-diminished'}
          onChange={(tonicSix) => onChange({ ...plan, tonicSix })}
        />
        tonic = 6
      </label>
      <label>
        height{' '}
        <Select
          label="Height"
          look="line"
          value={plan.heights?.[0] ?? PLANS[plan.id].height}
          options={HEIGHT_INTENTS.map((height) => [height, HEIGHTS[height]] as const)}
          onChange={(height) => onChange({ ...plan, heights: [height] })}
        />
      </label>
      <OverlayDialog plan={plan} chart={chart} onChange={onChange} />
    </p>
  );
}

const HEIGHTS: Record<HeightIntent, string> = {
  ground: 'on the ground',
  low: 'low',
  high: 'high',
  free: 'free',
};

/** What a school leaves to the player. */
function Setting({
  plan,
  kind,
  onChange,
}: {
  plan: PlanWords;
  kind: 'target' | 'degrees' | 'mode' | undefined;
  onChange: (plan: PlanWords) => void;
}) {
  if (!kind) return null;
  if (kind === 'degrees')
    return (
      <label className="block pb-1 text-sm text-dim">
        Degrees{' '}
        <input
          className="field ml-1 w-40 py-0.5 font-mono text-sm"
          defaultValue={plan.degrees ?? ''}
          placeholder="1 b3 4 5 6"
          onBlur={(event) =>
            onChange({
              ...plan,
              ...(event.target.value.trim() ? { degrees: event.target.value.trim() } : {}),
            })
          }
        />
      </label>
    );
  const thirdsFirst = plan.ladder?.[0] === 'third';
  const options =
    kind === 'target'
      ? ['root', 'third', 'fifth', 'seventh']
      : ['dorian', 'mixolydian', 'lydian', 'major', 'phrygian', 'natural minor'];
  const value = kind === 'target' ? (plan.target ?? 'third') : (plan.mode ?? '');
  return (
    <label className="block pb-1 text-sm text-dim">
      {kind === 'target' ? 'Target' : 'Mode'}{' '}
      <Select
        label={kind === 'target' ? 'Target' : 'Mode'}
        look="line"
        className="ml-1"
        value={value}
        options={[
          ...(kind === 'mode' ? [['', 'each chord its own'] as const] : []),
          ...options.map((option) => [option, option] as const),
        ]}
        onChange={(chosen) => {
          const { mode: _mode, ...rest } = plan;
          if (kind === 'target') onChange({ ...plan, target: chosen as 'third' });
          else onChange(chosen ? { ...plan, mode: chosen } : rest);
        }}
      />
      {kind === 'target' && (
        <Tip words={DISAGREEMENTS.ladder}>
          <button
            type="button"
            className="ml-4 underline hover:text-ink"
            onClick={() =>
              onChange({ ...plan, ladder: thirdsFirst ? [...RUNGS] : ['third', 'root', 'seventh', 'fifth'] })
            }
          >
            {thirdsFirst ? 'thirds first' : 'roots first'}
          </button>
        </Tip>
      )}
    </label>
  );
}

const whereOf = (scope: Scope, place: PartPlace): Where | null => {
  if (scope === 'degree' && place.degree) return { degree: place.degree };
  if (scope === 'chord' && place.chord) return { chord: place.chord };
  if (scope === 'section' && place.section) return { section: place.section };
  if (scope === 'chorus') return { chorus: 2 };
  return null;
};

const whereWords = ({ degree, chord, section, chorus }: Where): string => {
  if (degree !== undefined) return `on every ${degree}`;
  if (chord !== undefined) return `on every ${typeset(chord)}`;
  if (section !== undefined) return `in ${section}`;
  return `in chorus ${chorus}`;
};

/** A preset's choice in words: presets name no home scale of their own. */
function wordsOf({ choice }: Preset): PlanWords {
  const { home: _home, parts, ...rest } = choice;
  return {
    ...rest,
    ...(parts ? { parts: parts.map(({ where, plan: { home: _own, ...plan } }) => ({ where, plan })) } : {}),
  };
}
