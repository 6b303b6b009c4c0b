import { asc, desc, eq, inArray } from 'drizzle-orm';
import { changesOf, harmonyOf, readChart, timelineOf, transposeText, type Chart } from '@/core/chart';
import { corrected, playedFrom } from '@/core/correct';
import { CATALOGUE, drillFor, drillOf, drillOfFinding, judgeDrill, readOwnWords, type Drill, type Gate } from '@/core/drill';
import { afterSitting, climbed, DAY_MS, ladderTo, SLOWEST, type Climb, type Ladder, type Memory, type Try } from '@/core/habit';
import { keyName } from '@/core/music';
import { planKey, type PlanWords } from '@/core/plan';
import { beatsToSeconds, certain } from '@/core/vocabulary';
import { chartById } from './charts';
import { editsOf, heardIn } from './corrections';
import { database, write } from './db/client';
import { drillRuns, drills } from './db/schema';
import { Failure, notFound } from './failure';
import { newId } from './ids';
import { reviewOf } from './reviews';
import { takeById } from './takes';
import type { DrillChangeBody, NewDrillBody, RunBody } from './validation';

/** What a drill came from, for people to read. */
export type DrillOrigin = { readonly takeId: string; readonly take: number; readonly sentence: string };
/** What is remembered after the latest sitting, and what was before it: attempts that come later in the same sitting are graded with it. */
type Remembered = { readonly sitting: string; readonly before: Memory | null; readonly now: Memory };

export type StoredDrill = {
  readonly id: string; readonly chartId: string | null; readonly title: string; readonly drill: Drill; readonly origin: DrillOrigin | null; readonly ladder: Ladder; readonly memory: Memory | null;
  readonly dueAt: number; readonly away: boolean; readonly createdAt: number;
};
/** An attempt with what was heard at each place. */
export type StoredRun = Try & { readonly id: string; readonly takeId: string | null; readonly sitting: string; readonly seconds: number; readonly gates: readonly Gate[]; readonly at: number };

type Row = typeof drills.$inferSelect;
const asDrill = (row: Row): StoredDrill => {
  const { drill, origin } = row.json as { drill: Drill; origin: DrillOrigin | null };
  const { id, chartId, title, dueAt, createdAt } = row;
  return { id, chartId, title, drill, origin, ladder: row.ladder as Ladder, memory: (row.memory as Remembered | null)?.now ?? null, dueAt, away: row.awayAt !== null, createdAt };
};
const asRun = ({ id, takeId, sitting, tempo, met, of, passed, seconds, json, createdAt }: typeof drillRuns.$inferSelect): StoredRun => ({ id, takeId, sitting, tempo, met, of, passed, seconds, gates: json as Gate[], at: createdAt });

/** All drills that come back, the longest due first. */
export async function listDrills(): Promise<StoredDrill[]> {
  return (await database().select().from(drills).orderBy(asc(drills.dueAt), asc(drills.createdAt))).map(asDrill);
}

export type DrillItem = { readonly drill: StoredDrill; /** Newest first. */ readonly runs: readonly StoredRun[]; /** Whole days until it is due; none or fewer is now. */ readonly days: number };

/** Every drill with its attempts, the longest due first. */
export async function drillItems(now = Date.now()): Promise<DrillItem[]> {
  const all = await listDrills();
  const runs = await latestRuns(all.map(({ id }) => id));
  return all.map((drill) => ({ drill, runs: runs.get(drill.id) ?? [], days: Math.ceil((drill.dueAt - now) / DAY_MS) }));
}

/** What is due besides one drill, the longest due first. */
export async function dueBeside(id: string, now = Date.now()): Promise<StoredDrill | null> {
  return (await listDrills()).find((one) => one.id !== id && !one.away && one.dueAt <= now) ?? null;
}

export async function drillById(id: string): Promise<StoredDrill> {
  const [row] = await database().select().from(drills).where(eq(drills.id, id));
  if (!row) throw notFound('drill');
  return asDrill(row);
}

/** Attempts at a drill in order of time. */
export async function runsOf(drillId: string): Promise<StoredRun[]> {
  return (await database().select().from(drillRuns).where(eq(drillRuns.drillId, drillId)).orderBy(asc(drillRuns.createdAt), asc(drillRuns.id))).map(asRun);
}

/** The latest attempts of several drills, newest first. */
export async function latestRuns(ids: readonly string[]): Promise<Map<string, StoredRun[]>> {
  const found = new Map<string, StoredRun[]>(ids.map((id) => [id, []]));
  if (ids.length === 0) return found;
  for (const row of await database().select().from(drillRuns).where(inArray(drillRuns.drillId, [...ids])).orderBy(desc(drillRuns.createdAt), desc(drillRuns.id))) found.get(row.drillId)!.push(asRun(row));
  return found;
}

/** Takes a drill up. The same over the same bars is taken up again where it was left. */
export async function takeUpDrill(body: NewDrillBody): Promise<StoredDrill> {
  const { chartId, title, drill, origin, start } = await drillFrom(body);
  const { kind, span, plan, rule, chartText } = drill;
  const key = JSON.stringify([kind, span, rule, planKey(plan), chartText]);
  return write(async (tx) => {
    const [known] = await tx.select().from(drills).where(eq(drills.key, key));
    if (known) {
      const [row] = await tx.update(drills).set({ awayAt: null }).where(eq(drills.id, known.id)).returning();
      return asDrill(row!);
    }
    const [row] = await tx.insert(drills).values({ id: newId(), chartId, title, key, json: { drill, origin }, ladder: ladderTo({ goal: drill.tempo, ...(start === undefined ? {} : { start }) }), dueAt: Date.now() }).returning();
    return asDrill(row!);
  });
}

type Made = { readonly chartId: string | null; readonly title: string; readonly drill: Drill; readonly origin: DrillOrigin | null; /** Where the ladder begins, where that is not three quarters of the goal. */ readonly start?: number };

async function drillFrom(body: NewDrillBody): Promise<Made> {
  if ('takeId' in body) return drillFromFinding(body);
  if ('drillId' in body) return drillInKey(body.drillId, body.by);
  const { id, title, text } = await chartById(body.chartId);
  const chart = readable(text);
  const plan: PlanWords = body.plan ?? { id: 'scale-per-chord' };
  if ('kind' in body) {
    const { kind, phrase, change } = body;
    const span = body.span ?? (change === undefined ? undefined : aroundChange(chart, change));
    if (span && (span[0] > span[1] || span[1] > chart.bars.length)) throw new Failure(422, { code: 'drill.bars', message: `Bars from 1 to ${chart.bars.length} are meant.` });
    const drill = drillFor({ kind, chart, tempo: body.tempo ?? chart.tempo ?? 100, plan, ...(span ? { span } : {}), ...(phrase ? { phrase } : {}) });
    return { chartId: id, title, origin: null, drill: change === undefined ? drill : { ...drill, name: nameFor(drill.name, ` into ${change.split('→')[1]}`) } };
  }
  const read = readOwnWords(body.words, chart.bars.length);
  if (!read.ok) throw new Failure(422, read.problems[0]);
  const { rule, span, tempo = body.tempo ?? chart.tempo ?? 100 } = read.value;
  const name = body.words.trim().replace(/\s+/g, ' ').slice(0, 80);
  return { chartId: id, title, origin: null, drill: drillOf({ kind: 'own', name: name.charAt(0).toUpperCase() + name.slice(1), reason: 'You asked for it.', rule }, { chart, tempo, plan, ...(span ? { span } : {}) }) };
}

/** The same drill so many half steps higher: its bars moved and respelled, its ladder begun anew where the hand already is. */
async function drillInKey(id: string, by: number): Promise<Made> {
  const { chartId, title, drill, ladder } = await drillById(id);
  const moved = transposeText(drill.chartText, { by });
  if (!moved.ok) throw new Failure(422, moved.problems[0]);
  const chart = readable(moved.value);
  const key = chart.key ?? harmonyOf(chart, timelineOf(chart, 100)).regions[0]?.key;
  // a home scale by name would be the old key's
  const { home: _home, ...plan } = drill.plan;
  const name = drill.kind === 'own' ? drill.name.split(', in ')[0]! : CATALOGUE[drill.kind].name;
  return { chartId, title, origin: null, start: ladder.rungs[ladder.at]!, drill: { ...drill, name: key ? `${name}, in ${keyName(key)}` : name, chartText: moved.value, plan } };
}

/** The bars of the first place where one chord goes to another. */
function aroundChange(chart: Chart, kind: string): [number, number] {
  const timeline = timelineOf(chart, 100);
  const found = changesOf(timeline, 2).find(({ from, to }) => `${from.symbol}→${to.symbol}` === kind);
  if (!found) throw new Failure(422, { code: 'drill.change', message: 'This change is not in the chart any more.' });
  const bar = found.bar + 1;
  return found.at % timeline.formBeats > timeline.bars[found.bar]!.start + 1e-6 || bar === 1 ? [bar, Math.min(chart.bars.length, bar + (bar === 1 ? 1 : 0))] : [bar - 1, bar];
}

/** What a finding asks for; it is named by its kind and place, as the order may have changed since it was read. */
async function drillFromFinding({ takeId, finding: { kind, change: into, chord: over } }: Extract<NewDrillBody, { takeId: string }>): Promise<Made> {
  const { take, findings } = await reviewOf(takeId);
  const finding = findings.find((one) => one.kind === kind && one.where.change === into && one.where.chord === over);
  const drill = finding && drillOfFinding(finding, readable(take.chartText), take.plan);
  if (!finding || !drill) throw new Failure(422, { code: 'drill.none', message: 'This finding asks for no drill of its own.' });
  const { change, chord } = finding.where;
  const where = change ? ` into ${change.split('→')[1]}` : chord ? ` over ${chord}` : '';
  // a finding says how slowly to begin; where it was missed is where it has to hold
  return { chartId: take.chartId, title: take.title, start: drill.tempo, drill: { ...drill, name: nameFor(drill.name, where), tempo: Math.max(drill.tempo, Math.round(take.tempo)) }, origin: { takeId, take: take.number, sentence: finding.sentence } };
}

/** “Thirds at every change” into one chord is “Thirds into F7”. */
const nameFor = (name: string, where: string): string => (where === '' ? name : name.includes(' at every change') ? name.replace(' at every change', where) : `${name},${where}`);

function readable(text: string): Chart {
  const read = readChart(text);
  if (!read.ok) throw new Failure(422, { ...read.problems[0], message: `This chart cannot be played yet. ${read.problems[0].message}` });
  return read.value;
}

/** Puts a drill away or takes it up again; changes how it climbs. */
export async function changeDrill(id: string, { away, goal, up, down, tempo }: DrillChangeBody): Promise<StoredDrill> {
  const { ladder, drill } = await drillById(id);
  const next = goal === undefined ? ladder : ladderTo({ goal, start: ladder.rungs[ladder.at]!, up: ladder.up, down: ladder.down });
  const stands = tempo === undefined ? next : atTempo(next, tempo);
  return write(async (tx) => {
    const [row] = await tx.update(drills).set({
      ladder: { ...stands, up: up ?? stands.up, down: down ?? stands.down },
      ...(goal === undefined ? {} : { json: { drill: { ...drill, tempo: goal }, origin: (await drillById(id)).origin } }), ...(away === undefined ? {} : { awayAt: away ? Date.now() : null }),
    }).where(eq(drills.id, id)).returning();
    return asDrill(row!);
  });
}

/** The rung nearest to a tempo, lower ones made where there are none. */
function atTempo(ladder: Ladder, tempo: number): Ladder {
  const wide = tempo < ladder.rungs[0]! && tempo >= SLOWEST ? ladderTo({ goal: ladder.rungs[ladder.rungs.length - 1]!, start: tempo, up: ladder.up, down: ladder.down }) : ladder;
  const at = wide.rungs.reduce((best, rung, index) => (Math.abs(rung - tempo) < Math.abs(wide.rungs[best]! - tempo) ? index : best), 0);
  return { ...wide, at };
}

export type RunOutcome = { readonly run: StoredRun; readonly climb: Climb; readonly drill: StoredDrill };

/**
 * Judges a take as an attempt at a drill, by the drill's rule alone, and moves its ladder and its next date. The same take is counted once.
 * What was played is judged from its notes here: nobody's word is taken for it.
 */
export async function addRun(drillId: string, { takeId, sitting }: RunBody): Promise<RunOutcome> {
  const stored = await drillById(drillId);
  const take = await takeById(takeId);
  const heard = await heardIn(takeId);
  if (take.state !== 'ready' || !heard) throw new Failure(409, { code: 'take.open', message: 'This attempt is not finished yet.' });
  if (take.drillId !== drillId) throw new Failure(422, { code: 'run.other', message: 'This take is no attempt at this drill.' });
  const notes = playedFrom(corrected(heard.notes, await editsOf(takeId)), take.pace ?? take.tempo, take.offsetSec);
  const { met, of, passed, gates } = judgeDrill({ ...stored.drill, tempo: take.tempo }, notes, take.choruses);
  const chart = certain(readChart(stored.drill.chartText));
  const beats = chart.bars.length * take.choruses * 4;
  return write(async (tx) => {
    const [counted] = await tx.select().from(drillRuns).where(eq(drillRuns.takeId, takeId));
    const [before] = await tx.select().from(drills).where(eq(drills.id, drillId));
    if (counted) return { run: asRun(counted), climb: 'stay', drill: asDrill(before!) };
    const [row] = await tx.insert(drillRuns).values({ id: newId(), drillId, takeId, sitting, tempo: take.tempo, met, of, passed, seconds: take.frames > 0 ? take.frames / take.rate : beatsToSeconds(beats, take.tempo), json: gates, createdAt: Math.max(take.createdAt, 0) }).returning();
    const all = (await tx.select().from(drillRuns).where(eq(drillRuns.drillId, drillId)).orderBy(asc(drillRuns.createdAt), asc(drillRuns.id))).map(asRun);
    const { ladder, climb } = climbed(before!.ladder as Ladder, all);
    const memory = before!.memory as Remembered | null;
    const base = memory?.sitting === sitting ? memory.before : (memory?.now ?? null);
    const { memory: now, dueAt } = afterSitting(ladder, base, all.filter((one) => one.sitting === sitting), Math.max(row!.createdAt, base?.lastReview ?? 0));
    const [after] = await tx.update(drills).set({ ladder, memory: { sitting, before: base, now } satisfies Remembered, dueAt }).where(eq(drills.id, drillId)).returning();
    return { run: asRun(row!), climb, drill: asDrill(after!) };
  });
}
