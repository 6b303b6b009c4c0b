'use client';
import { useState } from 'react';
import type { Chart, Harmony } from '@/core/chart';
import {
  misplacedParts,
  PLAN_IDS,
  PLANS,
  type Clash,
  type PlanId,
  type PlanWords,
  type Preset,
  type SettingsWords,
} from '@/core/plan';
import { clashWords, placeWords, planSentence, whereWords } from '@/presentation';
import { ChordWords } from '@/ui/ChordWords';
import { Select, Tip } from '@/ui/controls';
import { keepOwnPlans, useOwnPlans } from './ownPlans';
import { OverlayDialog } from './OverlayDialog';
import { PlanSettings } from './PlanSettings';
import {
  scopesAt,
  settingsAt,
  whereOf,
  withoutPart,
  withSettings,
  type PlanScope,
  type ScopePlace,
} from './planScope';

type Props = {
  plan: PlanWords;
  presets: readonly Preset[];
  place: Pick<ScopePlace, 'chord' | 'degree' | 'section'> & { readonly bar: number };
  chart: Chart;
  /** The home scale at the chosen place without a choice of the player's. */
  homeWithout: string;
  clashes: readonly Clash[];
  onChange: (plan: PlanWords) => void;
  onHear: (home: string) => void;
  harmony: Harmony;
  /** The chosen chord of the form. */
  index: number;
  /** Lets a line over superimposed changes be heard. */
  onHearOver: (overlay: string) => void;
};

/**
 * The school for the next take, for the whole form or a part of it: why it is taught, what it is bad at, and what
 * is set in it.
 */
export function PlanChooser(props: Props) {
  const { plan, place: chosen, chart, homeWithout, onChange } = props;
  const [scope, setScope] = useState<PlanScope>('form');
  const [bars, setBars] = useState<readonly [number, number] | null>(null);
  const [chorus, setChorus] = useState(2);
  const place: ScopePlace = { ...chosen, bars: bars ?? [chosen.bar, chosen.bar], chorus };
  const where = whereOf(scope, place);
  const own = settingsAt(plan, where);
  const choose = (id: PlanId) => {
    const { home, tonicSix, overlay } = own ?? {};
    const kept = { ...(home && { home }), ...(tonicSix && { tonicSix }), ...(overlay && { overlay }) };
    onChange(withSettings(plan, where, { ...kept, id }));
  };
  return (
    <section aria-label="Plan for the next take">
      <div className="flex flex-wrap items-baseline justify-between gap-2">
        <h2 className="heading">Plan for the next take</h2>
        <label className="text-sm text-dim">
          for <Select label="For" look="line" value={scope} options={scopesAt(place)} onChange={setScope} />
        </label>
      </div>
      {scope === 'bars' && <BarsChoice bars={place.bars} count={chart.bars.length} onChange={setBars} />}
      {scope === 'chorus' && (
        <p className="pb-1 text-sm text-dim">
          chorus <Select label="Chorus" look="line" value={chorus} options={CHORUSES} onChange={setChorus} />
        </p>
      )}
      <Schools own={own?.id} onChoose={choose} />
      {own && (
        <>
          <p className="mt-1.5 border-t border-line pt-1.5 text-[14.5px] leading-[19px] text-soft">
            {PLANS[own.id].why} <span className="text-dim">{PLANS[own.id].badAt}</span>
          </p>
          <PlanSettings
            key={JSON.stringify(where)}
            settings={settingsOnly(own)}
            fallback={where ? (plan.home ?? homeWithout) : homeWithout}
            onChange={(settings) => onChange(withSettings(plan, where, settings))}
            onHear={props.onHear}
          />
        </>
      )}
      <PlanDetails {...props} />
    </section>
  );
}

const CHORUSES = Array.from({ length: 12 }, (_, index) => [index + 1, String(index + 1)] as const);

/** The settings of the whole form's plan without its parts. */
function settingsOnly(settings: PlanWords | SettingsWords): SettingsWords {
  const { parts: _parts, heights: _heights, ladder: _ladder, ...own } = settings as PlanWords;
  return own;
}

type BarsProps = {
  bars: readonly [number, number];
  count: number;
  onChange: (bars: readonly [number, number]) => void;
};

function BarsChoice({ bars: [first, last], count, onChange }: BarsProps) {
  const options = Array.from({ length: count }, (_, index) => [index + 1, String(index + 1)] as const);
  return (
    <p className="pb-1 text-sm text-dim">
      bars{' '}
      <Select
        label="From bar"
        look="line"
        value={first}
        options={options}
        onChange={(bar) => onChange([bar, Math.max(bar, last)])}
      />{' '}
      to{' '}
      <Select
        label="To bar"
        look="line"
        value={last}
        options={options}
        onChange={(bar) => onChange([Math.min(first, bar), bar])}
      />
    </p>
  );
}

const Schools = ({ own, onChoose }: { own: PlanId | undefined; onChoose: (id: PlanId) => void }) => (
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
            onClick={() => onChoose(id)}
            className={`w-full py-px pl-3 text-left text-[15px] leading-[22px] ${id === own ? 'font-[640] text-ink' : 'text-soft hover:text-ink'}`}
          >
            {PLANS[id].short}
          </button>
        </Tip>
      </li>
    ))}
  </ul>
);

/** The whole plan in one sentence, its parts, what rubs in it, and plans to begin from. */
function PlanDetails(props: Props) {
  const { plan, presets, chart, harmony, index, clashes, onChange, onHearOver } = props;
  const parts = plan.parts ?? [];
  const misplaced = misplacedParts(plan, chart);
  return (
    <div className="mt-1.5 grid gap-1 border-t border-line pt-1.5 text-sm text-soft">
      {parts.length > 0 && (
        <>
          <p className="text-ink">
            <ChordWords text={planSentence(plan)} />
          </p>
          <p className="flex flex-wrap gap-x-3">
            {parts.map((part, index) => (
              <button
                key={JSON.stringify(part.where)}
                type="button"
                className="hover:text-ink"
                onClick={() => onChange(withoutPart(plan, index))}
                aria-label={`Remove ${PLANS[part.plan.id].name} ${placeWords(part.where)}`}
              >
                {whereWords(part.where)} ×
              </button>
            ))}
          </p>
        </>
      )}
      {misplaced.map(({ message }) => (
        <p key={message} role="alert" className="border-l-[3px] border-now pl-2 text-ink">
          {message}
        </p>
      ))}
      {clashes.slice(0, 3).map((clash) => (
        <p key={`${clash.note} ${clash.chord}`}>
          <ChordWords text={clashWords(clash)} />
        </p>
      ))}
      <p className="flex flex-wrap gap-x-3 gap-y-1">
        <Presets plan={plan} presets={presets} onChange={onChange} />
        <OverlayDialog
          plan={plan}
          chart={chart}
          harmony={harmony}
          index={index}
          onChange={onChange}
          onHear={onHearOver}
        />
      </p>
    </div>
  );
}

/** Plans that suit the form, and the player's own, kept in this browser. */
function Presets({ plan, presets, onChange }: Pick<Props, 'plan' | 'presets' | 'onChange'>) {
  const plans = useOwnPlans();
  const words = [...presets.map(({ name, choice }) => [name, wordsOf(choice)] as const), ...ownPlans(plans)];
  const sentence = planSentence(plan);
  const isKept = plans.some((one) => planSentence(one) === sentence);
  return (
    <>
      <label>
        try{' '}
        <Select
          label="Presets for this form"
          look="line"
          className="max-w-[186px]"
          value={-1}
          placeholder="what suits this form"
          options={words.map(([name], index) => [index, name] as const)}
          onChange={(index) => {
            const chosen = words[index]?.[1];
            if (chosen) onChange(chosen);
          }}
        />
      </label>
      <button
        type="button"
        className="underline hover:text-ink"
        onClick={() =>
          keepOwnPlans(isKept ? plans.filter((one) => planSentence(one) !== sentence) : [...plans, plan])
        }
      >
        {isKept ? 'forget this plan' : 'keep this plan'}
      </button>
    </>
  );
}

const ownPlans = (plans: readonly PlanWords[]): (readonly [string, PlanWords])[] =>
  plans.map((plan) => [planSentence(plan), plan] as const);

/** A preset's choice in words: presets name no home scale and no place of the hand of their own. */
function wordsOf({ home: _home, hand: _hand, parts, ...rest }: Preset['choice']): PlanWords {
  return {
    ...rest,
    ...(parts
      ? { parts: parts.map(({ where, plan: { home: _own, hand: _at, ...plan } }) => ({ where, plan })) }
      : {}),
  };
}
