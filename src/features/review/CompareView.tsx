'use client';
import { useEffect, useMemo, useState } from 'react';
import { compareTakes, type Comparison } from '@/core/findings';
import { PLANS } from '@/core/plan';
import type { Judgement } from '@/core/review';
import { present } from '@/core/shared';
import { ask } from '@/audio/persistence/serverTakes';
import { ChordWords } from '@/ui/ChordWords';
import { Checkbox } from '@/ui/controls';
import { CompareBands } from './CompareBands';
import { judgedOtherwise, type Otherwise, type SiblingTake, type Side } from './compareSides';
import { Differences } from './Differences';
import { JudgeOtherwise } from './JudgeOtherwise';
import type { ReviewData } from './useReview';

export type { SiblingTake } from './compareSides';
type Props = {
  data: ReviewData;
  judgement: Judgement;
  siblings: readonly SiblingTake[];
  onHear: (beat: number) => void;
};
/** Takes that are held beside one another at once. */
const MOST = 4;

/**
 * Takes of one form one over the other, or one take judged in two ways: what differs, and whether it is more
 * than chance.
 */
export function CompareView(props: Props) {
  const { data, judgement, siblings, onHear } = props;
  const { timeline } = judgement;
  const model = useCompareModel(props);
  const { sides, other, otherwise, trouble } = model;
  const comparison = useMemo(
    () =>
      sides.length > 1
        ? compareTakes(
            sides.map((side) => side.judgement),
            timeline.formBeats,
          )
        : null,
    [sides, timeline],
  );
  return (
    <>
      <Heading comparison={comparison} isAlone={siblings.length === 0} />
      <div className="grid grid-cols-[minmax(0,1fr)] gap-x-14 gap-y-6 lg:grid-cols-[minmax(0,856fr)_minmax(280px,304fr)]">
        <div className="min-w-0">
          {comparison && (
            <CompareBands sides={sides} comparison={comparison} timeline={timeline} onHear={onHear} />
          )}
        </div>
        <aside className="min-w-0">
          {comparison && <Differences comparison={comparison} sides={sides} />}
          {siblings.length > 0 && <Siblings siblings={siblings} model={model} />}
          <JudgeOtherwise data={data} value={other} onChange={model.judgeOtherwise} />
          <Trouble words={otherwise && !otherwise.ok ? otherwise.message : null} />
          <Trouble words={trouble} />
        </aside>
      </div>
    </>
  );
}

function useCompareModel({ data, judgement, siblings }: Props) {
  const [chosen, setChosen] = useState<readonly string[]>(() => siblings.slice(0, 1).map(({ id }) => id));
  const [trouble, setTrouble] = useState<string | null>(null);
  const [other, setOther] = useState<Otherwise | null>(null);
  const loaded = useLoaded(chosen, (id) => {
    setTrouble('That take could not be fetched. Choose it again.');
    setChosen((now) => now.filter((one) => one !== id));
  });
  const otherwise = useMemo(() => (other ? judgedOtherwise(data, other) : null), [data, other]);
  const sides = useMemo((): Side[] => {
    const own: Side = { name: `take ${data.take.number}`, sub: data.take.when, judgement };
    if (!otherwise) {
      const others = siblings
        .filter(({ id }) => chosen.includes(id) && loaded.has(id))
        .map((take) => ({ number: take.number, side: sideOf(take, present(loaded.get(take.id))) }));
      return [...others, { number: data.take.number, side: own }]
        .sort((a, b) => a.number - b.number)
        .map(({ side }) => side);
    }
    const asPlanned = { ...own, sub: `by ${PLANS[data.take.plan.id].short}` };
    if (!otherwise.ok) return [asPlanned];
    return [asPlanned, { name: 'otherwise', sub: otherwise.name, judgement: otherwise.judgement }];
  }, [data, judgement, siblings, chosen, loaded, otherwise]);
  return {
    chosen: other ? [] : chosen,
    trouble,
    other,
    otherwise,
    sides,
    judgeOtherwise: setOther,
    toggle: (id: string) => {
      setTrouble(null);
      setOther(null);
      setChosen((now) =>
        now.includes(id) ? now.filter((one) => one !== id) : [...now, id].slice(-(MOST - 1)),
      );
    },
  };
}
type CompareModel = ReturnType<typeof useCompareModel>;

const sideOf = ({ number, when, tempo }: SiblingTake, judgement: Side['judgement']): Side => ({
  name: `take ${number}`,
  sub: `${when}, at ${tempo}`,
  judgement,
});

/** Reviews of the takes that are chosen, fetched one after the other. */
function useLoaded(
  chosen: readonly string[],
  onFailure: (id: string) => void,
): ReadonlyMap<string, ReviewData> {
  const [loaded, setLoaded] = useState<ReadonlyMap<string, ReviewData>>(new Map());
  const [fail] = useState(() => onFailure);
  const missing = chosen.find((id) => !loaded.has(id));
  useEffect(() => {
    if (missing === undefined) return;
    let gone = false;
    ask<ReviewData>(`/api/takes/${missing}`)
      .then((review) => {
        if (!gone) setLoaded((now) => new Map(now).set(missing, review));
      })
      .catch(() => {
        if (!gone) fail(missing);
      });
    return () => {
      gone = true;
    };
  }, [missing, fail]);
  return loaded;
}

function Heading({ comparison, isAlone }: { comparison: Comparison | null; isAlone: boolean }) {
  if (comparison)
    return (
      <h1 className="mb-4 text-[22px] leading-[30px] font-[480] tracking-tight text-soft sm:text-[25px] sm:leading-8">
        <ChordWords text={comparison.soft} />
        <br />
        <b className="font-[620] text-ink">
          <ChordWords text={comparison.bold} />
        </b>
      </h1>
    );
  return (
    <h1 className="mb-4 text-[25px] leading-8 font-[480] text-soft">
      {isAlone ? 'This is the only take of its form so far. ' : 'Choose a take to hold beside this one. '}
      <b className="font-[620] text-ink">Or judge it by another plan.</b>
    </h1>
  );
}

function Siblings({ siblings, model }: { siblings: readonly SiblingTake[]; model: CompareModel }) {
  return (
    <fieldset className="mt-5 border-t border-line pt-3">
      <legend className="sr-only">Takes of this form</legend>
      <h2 className="heading">Takes of this form</h2>
      <div className="max-h-44 overflow-y-auto">
        {siblings.map(({ id, number, when, tempo }) => (
          <label key={id} className="flex gap-2.5 py-1 text-[15px]">
            <Checkbox checked={model.chosen.includes(id)} onChange={() => model.toggle(id)} />
            <b className="font-[620]">{number}</b>
            <span className="text-dim">
              {when}, at {tempo}
            </span>
          </label>
        ))}
      </div>
    </fieldset>
  );
}

const Trouble = ({ words }: { words: string | null }) =>
  words === null ? null : (
    <p role="alert" className="mt-2 border-l-[3px] border-now pl-3 text-[15px] text-ink">
      {words}
    </p>
  );
