import { and, eq, isNull, lt } from 'drizzle-orm';
import { harmonyOf, homeOf, readChart, timelineOf, type Chart } from '@/core/chart';
import { isDominant, pitchClass, rootPc, scaleOn, type Scale } from '@/core/music';
import { withHome } from '@/core/plan';
import { database, write } from './db/client';
import { reports, settings, takes } from './db/schema';
import { asTake } from './takes';

/** The first engine that reads a form's default home scale by today's rules (T3.11). */
const TODAYS_RULES = 7;
const DONE = 'earlier-homes';

/**
 * The home scale a form had by default before today's rules, where it was another one: a blues only where the feel
 * or its own sevenths said so, else the key's major or natural minor.
 * @returns null where nothing has changed, and for forms of several keys, which no one scale would fit
 */
export function earlierHome(chart: Chart): Scale | null {
  const { regions } = harmonyOf(chart, timelineOf(chart, 120));
  const key = regions[0]?.key;
  if (regions.length !== 1 || !key || key.mode !== undefined || chart.home) return null;
  const chords = timelineOf(chart, 120).chordSpans.flatMap(({ chord }) => chord ?? []);
  const on = (step: number) =>
    chords.filter((chord) => rootPc(chord) === (pitchClass(key.tonic) + step) % 12);
  const dominant = (step: number) =>
    on(step).length > 0 && on(step).every(({ quality }) => quality === 'dominant');
  const vamp = new Set(chords.map(rootPc)).size === 1 && chords.every(isDominant);
  const blues = /\bblues\b/.test(chart.feel ?? '') || (!key.minor && dominant(0) && dominant(5)) || vamp;
  const plain = key.minor ? 'natural minor' : 'major';
  const then = scaleOn(key.tonic, blues ? 'blues' : plain);
  return then.name === homeOf(chart).name ? null : then;
}

/**
 * Takes judged before a form's default home scale was read as it is today keep the one they were judged by. Done
 * once.
 * @returns how many takes it was written into
 */
export async function keepEarlierHomes(): Promise<number> {
  const [done] = await database().select().from(settings).where(eq(settings.name, DONE));
  if (done) return 0;
  const rows = await database()
    .selectDistinct({ take: takes })
    .from(takes)
    .innerJoin(reports, eq(reports.takeId, takes.id))
    .where(and(lt(reports.engineVersion, TODAYS_RULES), isNull(takes.removedAt)));
  const changed = rows.flatMap(({ take }) => {
    const { plan, trouble } = asTake(take);
    if (trouble) return [];
    const chart = readChart(take.chartText);
    const home = plan.home === undefined && chart.ok ? earlierHome(chart.value) : null;
    return home ? [{ id: take.id, plan: withHome(plan, home.name) }] : [];
  });
  await write(async (tx) => {
    for (const { id, plan } of changed) await tx.update(takes).set({ plan }).where(eq(takes.id, id));
    await tx
      .insert(settings)
      .values({ name: DONE, json: { takes: changed.length } })
      .onConflictDoNothing();
  });
  return changed.length;
}
