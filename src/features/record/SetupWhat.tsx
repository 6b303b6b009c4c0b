'use client';
import Link from 'next/link';
import { homeNameOf, TEMPO_LIMITS } from '@/core/chart';
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

/** What is played: chart, bars, choruses, tempo, key, and the plan it is judged by. */
export function SetupWhat({ charts, chart, settings, set, onChange }: Props) {
  return (
    <>
      <ChoiceSetting
        name="Chart"
        value={settings.chartId}
        choices={charts.map(({ id, title }) => [id, title] as const)}
        onChange={(id) => onChange(withChart(settings, charts, id))}
      />
      <SetupBars chart={chart} settings={settings} set={set} />
      <NumberSetting
        name="Choruses"
        value={settings.choruses}
        low={1}
        high={40}
        onChange={(choruses) => set({ choruses })}
      />
      <Tempo settings={settings} set={set} />
      <NumberSetting
        name="Count-in"
        value={settings.countInBars}
        low={1}
        high={2}
        unit={settings.countInBars === 1 ? 'bar' : 'bars'}
        onChange={(countInBars) => set({ countInBars })}
      />
      <ChoiceSetting
        name="Judged by"
        value={settings.plan.id}
        choices={PLAN_IDS.map((id) => [id, PLANS[id].name] as const)}
        onChange={(id: PlanId) => set({ plan: { ...settings.plan, id } })}
      />
      <div className="grid grid-cols-[118px_minmax(0,1fr)] items-center gap-x-3 py-[3px] text-soft">
        <span className="text-dim">Home scale</span>
        <HomeScalePicker
          look="field"
          value={settings.plan.home}
          fallback={homeNameOf(chart.text)}
          onChange={(home) => set({ plan: withHome(settings.plan, home) })}
        />
      </div>
      <p className="mt-1.5 text-sm leading-5 text-dim">
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
    </>
  );
}

/** The tempo, and how it and the key move from chorus to chorus; a backing of one's own has its own. */
function Tempo({ settings, set }: SettingsPart) {
  if (settings.backingId !== null)
    return (
      <Setting name="Tempo">
        <span className="py-1 font-[620] text-ink">{Math.round(settings.tempo * 10) / 10}</span>{' '}
        <span className="text-dim">as your backing has it</span>
      </Setting>
    );
  return (
    <>
      <NumberSetting
        name="Tempo"
        value={settings.tempo}
        low={TEMPO_LIMITS[0]}
        high={TEMPO_LIMITS[1]}
        onChange={(tempo) => set({ tempo })}
      />
      {settings.choruses > 1 && (
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
    </>
  );
}
