import { addDays, startOfDay } from 'date-fns';
import { asc, eq } from 'drizzle-orm';
import { corrected, playedFrom } from '@/core/correct';
import { judgeDrill } from '@/core/drills';
import { afterSitting, climbed, ladderTo, SLOWEST, type Climb, type Ladder } from '@/core/scheduling';
import { planKey } from '@/core/plan';
import { editsOf, heardIn } from './corrections';
import { write } from './db/client';
import { drillRuns, drills } from './db/schema';
import { drillFrom } from './drillFrom';
import { readLadder } from './db/documents';
import { asDrill, asRun, drillById, type Remembered, type StoredDrill, type StoredRun } from './drillRows';
import { Failure } from './failure';
import { newId } from './ids';
import { playedSeconds, takeById } from './takes';
import type { DrillChangeBody, NewDrillBody, RunBody } from './validation';
import { present, elementAt } from '@/core/shared';

/** Takes a drill up. The same over the same bars is taken up again where it was left. */
export async function takeUpDrill(body: NewDrillBody): Promise<StoredDrill> {
  const { chartId, title, drill, origin, start } = await drillFrom(body);
  const { kind, span, plan, rule, chartText } = drill;
  const key = JSON.stringify([kind, span, rule, planKey(plan), chartText]);
  return write(async (tx) => {
    const [known] = await tx.select().from(drills).where(eq(drills.key, key));
    if (known) {
      const [row] = await tx.update(drills).set({ awayAt: null }).where(eq(drills.id, known.id)).returning();
      return asDrill(present(row));
    }
    const [row] = await tx
      .insert(drills)
      .values({
        id: newId(),
        chartId,
        title,
        key,
        json: { drill, origin },
        ladder: ladderTo({ goal: drill.tempo, ...(start === undefined ? {} : { start }) }),
        dueAt: Date.now(),
      })
      .returning();
    return asDrill(present(row));
  });
}

/** @param ahead days from today */
const onDay = (ahead: number, now = Date.now()) => ({
  dueAt: startOfDay(addDays(now, ahead)).getTime(),
  movedAt: now,
});

/** Puts a drill away, takes it up again or moves it to another day; changes how it climbs. */
export async function changeDrill(
  id: string,
  { away, goal, up, down, tempo, inDays }: DrillChangeBody,
): Promise<StoredDrill> {
  const { ladder, drill, origin } = await drillById(id);
  const next =
    goal === undefined
      ? ladder
      : ladderTo({ goal, start: elementAt(ladder.rungs, ladder.at), up: ladder.up, down: ladder.down });
  const stands = tempo === undefined ? next : atTempo(next, tempo);
  return write(async (tx) => {
    const [row] = await tx
      .update(drills)
      .set({
        ladder: { ...stands, up: up ?? stands.up, down: down ?? stands.down },
        ...(goal === undefined ? {} : { json: { drill: { ...drill, tempo: goal }, origin } }),
        ...(away === undefined ? {} : { awayAt: away ? Date.now() : null }),
        ...(inDays === undefined ? {} : onDay(inDays)),
      })
      .where(eq(drills.id, id))
      .returning();
    return asDrill(present(row));
  });
}

/** The rung nearest to a tempo, lower ones made where there are none. */
function atTempo(ladder: Ladder, tempo: number): Ladder {
  const wide =
    tempo < elementAt(ladder.rungs, 0) && tempo >= SLOWEST
      ? ladderTo({
          goal: elementAt(ladder.rungs, ladder.rungs.length - 1),
          start: tempo,
          up: ladder.up,
          down: ladder.down,
        })
      : ladder;
  const at = wide.rungs.reduce(
    (best, rung, index) =>
      Math.abs(rung - tempo) < Math.abs(elementAt(wide.rungs, best) - tempo) ? index : best,
    0,
  );
  return { ...wide, at };
}

export type RunOutcome = { readonly run: StoredRun; readonly climb: Climb; readonly drill: StoredDrill };

/**
 * Judges a take as an attempt at a drill, by the drill's rule alone, and moves its ladder and its next
 * date. The same take is counted once.
 * What was played is judged from its notes here: nobody's word is taken for it.
 */
export async function addRun(drillId: string, { takeId, sitting }: RunBody): Promise<RunOutcome> {
  const stored = await drillById(drillId);
  const take = await takeById(takeId);
  const heard = await heardIn(takeId);
  if (take.state !== 'ready' || !heard)
    throw new Failure(409, { code: 'take.open', message: 'This attempt is not finished yet.' });
  if (take.drillId !== drillId)
    throw new Failure(422, { code: 'run.other', message: 'This take is no attempt at this drill.' });
  const notes = playedFrom(
    corrected(heard.notes, await editsOf(takeId)),
    take.pace ?? take.tempo,
    take.offsetSec,
  );
  const { met, of, passed, places } = judgeDrill(
    { ...stored.drill, tempo: take.tempo },
    notes,
    take.choruses,
  );
  return write(async (tx) => {
    const [counted] = await tx.select().from(drillRuns).where(eq(drillRuns.takeId, takeId));
    const [before] = await tx.select().from(drills).where(eq(drills.id, drillId));
    if (counted) return { run: asRun(counted), climb: 'stay', drill: asDrill(present(before)) };
    const [row] = await tx
      .insert(drillRuns)
      .values({
        id: newId(),
        drillId,
        takeId,
        sitting,
        tempo: take.tempo,
        met,
        of,
        passed,
        seconds: playedSeconds(take),
        json: places,
        createdAt: Math.max(take.createdAt, 0),
      })
      .returning();
    const all = (
      await tx
        .select()
        .from(drillRuns)
        .where(eq(drillRuns.drillId, drillId))
        .orderBy(asc(drillRuns.createdAt), asc(drillRuns.id))
    ).map(asRun);
    const { ladder, climb } = climbed(readLadder(present(before).ladder), all);
    const memory = present(before).memory as Remembered | null;
    const base = memory?.sitting === sitting ? memory.before : (memory?.now ?? null);
    const { memory: now, dueAt } = afterSitting(
      ladder,
      base,
      all.filter((one) => one.sitting === sitting),
      Math.max(present(row).createdAt, base?.lastReview ?? 0),
    );
    const [after] = await tx
      .update(drills)
      .set({ ladder, memory: { sitting, before: base, now } satisfies Remembered, dueAt, movedAt: null })
      .where(eq(drills.id, drillId))
      .returning();
    return { run: asRun(present(row)), climb, drill: asDrill(present(after)) };
  });
}
