'use client';
import { LIMITS } from '@/core/contracts';
import Link from 'next/link';
import { homeNameOf } from '@/core/chart';
import { PLANS, PLAN_IDS, withHome, type PlanId } from '@/core/plan';
import { planSentence } from '@/presentation';
import { ChoiceSetting, NumberSetting, Setting } from '@/ui/Field';
import { HomeScalePicker } from '@/ui/HomeScalePicker';
import { KEY_STEPS, withChart, type RecordChart, type Settings, type SettingsPart } from './settings';
import { SetupBars } from './SetupBars';

type Props = SettingsPart & {
  charts: readonly RecordChart[];
  chart: RecordChart;
  onChange: (settings: Settings) => void;
};

/** What matters for every take, in one row: chart, tempo, choruses, and what the take is judged by. */
export function SetupFirst({ charts, chart, settings, set, onChange }: Props) {
  return (
    <>
      <ChoiceSetting
        wide
        name="Chart"
        value={settings.chartId}
        choices={charts.map(({ id, title }) => [id, title] as const)}
        onChange={(id) => onChange(withChart(settings, charts, id))}
      />
      <Tempo settings={settings} set={set} />
      <NumberSetting
        wide
        name="Choruses"
        value={settings.choruses}
        low={1}
        high={40}
        onChange={(choruses) => set({ choruses })}
      />
      <ChoiceSetting
        wide
        name="Judged by"
        value={settings.plan.id}
        choices={PLAN_IDS.map((id) => [id, PLANS[id].name] as const)}
        onChange={(id: PlanId) => set({ plan: { ...settings.plan, id } })}
      />
      <div className="grid py-[3px] text-soft">
        <span className="text-dim">Home scale</span>
        <HomeScalePicker
          look="field"
          value={settings.plan.home}
          fallback={homeNameOf(chart.text)}
          onChange={(home) => set({ plan: withHome(settings.plan, home) })}
        />
      </div>
    </>
  );
}

/** Why one plays by this plan, and where it can be studied. */
export const PlanWhy = ({ settings }: Pick<Props, 'settings'>) => (
  <p className="text-[15px] leading-6 text-dim">
    {PLANS[settings.plan.id].why}
    {(settings.plan.parts?.length ?? 0) > 0 && (
      <b className="block text-soft">{planSentence(settings.plan)}</b>
    )}{' '}
    <Link
      className="text-soft underline hover:text-ink"
      href={`/study/${settings.chartId}?plan=${encodeURIComponent(JSON.stringify(settings.plan))}`}
    >
      Study it first
    </Link>
  </p>
);

/** What else can be said of the form: its bars, what moves from chorus to chorus, the count-in. */
export function SetupWhat({ chart, settings, set }: SettingsPart & { chart: RecordChart }) {
  return (
    <>
      <SetupBars chart={chart} settings={settings} set={set} />
      {settings.choruses > 1 && settings.backingId === null && (
        <>
          <NumberSetting
            name="Each chorus"
            value={settings.tempoStep}
            low={-40}
            high={40}
            unit={settings.tempoStep < 0 ? 'slower' : 'faster'}
            onChange={(tempoStep) => set({ tempoStep })}
          />
          <ChoiceSetting
            name="Key"
            value={String(settings.keyStep)}
            choices={KEY_STEPS.map(([step, words]) => [String(step), words] as const)}
            onChange={(step) => set({ keyStep: Number(step) })}
          />
        </>
      )}
      <NumberSetting
        name="Count-in"
        value={settings.countInBars}
        low={1}
        high={2}
        unit={settings.countInBars === 1 ? 'bar' : 'bars'}
        onChange={(countInBars) => set({ countInBars })}
      />
    </>
  );
}

/** The tempo; a backing of one's own has its own. */
function Tempo({ settings, set }: SettingsPart) {
  if (settings.backingId !== null)
    return (
      <Setting name="Tempo" wide>
        <span className="py-1 font-[620] text-ink">
          {Math.round(settings.tempo * 10) / 10} <span className="font-normal text-dim">your backing</span>
        </span>
      </Setting>
    );
  return (
    <NumberSetting
      wide
      name="Tempo"
      value={settings.tempo}
      low={LIMITS.tempo[0]}
      high={LIMITS.tempo[1]}
      onChange={(tempo) => set({ tempo })}
    />
  );
}
