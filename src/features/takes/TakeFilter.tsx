'use client';
import { startOfToday, subDays } from 'date-fns';
import { useState } from 'react';
import { PLANS, type PlanId } from '@/core/plan';
import { Select } from '@/ui/controls';
import type { Facets, Filter } from './takesList';

type Props = { filter: Filter; facets: Facets; onChange: (part: Filter) => void };
type Named = readonly [value: string, words: string];

const SINCE: readonly (readonly [words: string, days: number])[] = [
  ['any time', 0],
  ['today', 1],
  ['7 days', 7],
  ['30 days', 30],
  ['a year', 365],
];
const STARS: readonly Named[] = [1, 2, 3, 4, 5].map((stars) => [
  String(stars),
  `${stars} ${stars === 1 ? 'star' : 'stars'} or more`,
]);
const keyWords = (key: string): string => key.replace(/^([A-G])b/, '$1♭').replace(/^([A-G])#/, '$1♯');

/** What takes are chosen by. */
export function TakeFilter(props: Props) {
  const { filter, facets, onChange } = props;
  return (
    <form
      role="search"
      aria-label="Choose takes"
      className="mb-3 flex flex-wrap items-center gap-2"
      onSubmit={(event) => event.preventDefault()}
    >
      <input
        type="search"
        aria-label="Find in titles, tags and remarks"
        placeholder="title, tag, remark"
        className="field w-40 !py-1 text-[15px]"
        value={String(filter.text ?? '')}
        onChange={(event) => onChange({ text: event.target.value })}
      />
      <Choice {...props} name="title" words="any tune" choices={facets.titles.map((one) => [one, one])} />
      <Choice
        {...props}
        name="plan"
        words="any plan"
        choices={facets.plans.map((plan) => [plan, PLANS[plan as PlanId]?.name ?? plan])}
      />
      <Choice
        {...props}
        name="key"
        words="any key"
        choices={facets.keys.map((key) => [key, keyWords(key)])}
      />
      <Choice
        {...props}
        name="finding"
        words="any finding"
        choices={facets.findings.map(({ kind, name, count }) => [kind, `${name}, ${count}`])}
      />
      <span className="flex items-center gap-1.5 text-[15px] text-dim">
        <Tempo {...props} name="slowest" words="from" />–<Tempo {...props} name="fastest" words="to" />
      </span>
      <Since onChange={onChange} />
      <Choice {...props} name="stars" words="any stars" choices={STARS} />
    </form>
  );
}

type ChoiceProps = Props & { name: keyof Filter; words: string; choices: readonly Named[] };

const Choice = ({ filter, onChange, name, words, choices }: ChoiceProps) => (
  <Select
    label={words}
    className="w-[128px] text-[15px]"
    value={String(filter[name] ?? '')}
    options={[['', words], ...choices]}
    onChange={(value) => onChange({ [name]: value || undefined } as Filter)}
  />
);

type TempoProps = Props & { name: 'slowest' | 'fastest'; words: string };

const Tempo = ({ filter, onChange, name, words }: TempoProps) => (
  <input
    aria-label={words}
    placeholder={words}
    inputMode="numeric"
    className="field w-[74px] !py-1 text-[15px]"
    value={String(filter[name] ?? '')}
    onChange={(event) => {
      const value = event.target.value.replace(/\D/g, '').slice(0, 3);
      onChange({ [name]: value === '' ? undefined : Number(value) } as Filter);
    }}
  />
);

function Since({ onChange }: { onChange: Props['onChange'] }) {
  const [days, setDays] = useState(0);
  return (
    <Select
      label="Played within"
      className="text-[15px]"
      value={days}
      options={SINCE.map(([words, within]) => [within, words] as const)}
      onChange={(within) => {
        setDays(within);
        onChange({ since: sinceOf(within) } as Filter);
      }}
    />
  );
}

function sinceOf(within: number): number | undefined {
  if (within === 0) return undefined;
  return (within === 1 ? startOfToday() : subDays(Date.now(), within)).getTime();
}
