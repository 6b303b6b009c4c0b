/** A stretch of sound: its first frame, and the first after it. */
export type DamagedStretch = { readonly from: number; readonly to: number };

// known again as soon as the sound is read again: nothing has to keep it
const held = globalThis as { idleWanderDamage?: Map<string, Map<number, DamagedStretch>> };
const found = () => (held.idleWanderDamage ??= new Map());

/** Remembers that a stretch of a take is not what was sent. */
export function noteDamage(takeId: string, stretch: DamagedStretch): void {
  const known = found().get(takeId) ?? new Map<number, DamagedStretch>();
  if (!known.has(stretch.from))
    console.error(`Take ${takeId}: its sound is damaged from frame ${stretch.from} to ${stretch.to}.`);
  found().set(takeId, known.set(stretch.from, stretch));
}

/** What was found damaged of a take since the start, in order, stretches that touch as one. */
export function damageOf(takeId: string): DamagedStretch[] {
  const joined: DamagedStretch[] = [];
  for (const { from, to } of [...(found().get(takeId)?.values() ?? [])].sort((a, b) => a.from - b.from)) {
    const last = joined.at(-1);
    if (last && last.to === from) joined[joined.length - 1] = { from: last.from, to };
    else joined.push({ from, to });
  }
  return joined;
}
