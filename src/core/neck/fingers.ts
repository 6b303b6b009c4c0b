/**
 * Fingers for a chord shape.
 * Rule T15.2: at most four fingers; a barre has nothing lower under it: no open string and no lower fret
 * between its ends.
 * @param frets low string to high; null where a string is silent, 0 open
 * @returns a finger a string (0 open, null silent), or null where four fingers cannot hold it
 */
export function fingersOf(frets: readonly (number | null)[]): (number | null)[] | null {
  const used = [...new Set(frets.filter((fret): fret is number => fret !== null && fret > 0))].sort(
    (a, b) => a - b,
  );
  const groups = used.flatMap((fret) => groupsAt(frets, fret));
  return groups.length > 4 ? null : assign(frets, groups, used[0] ?? 0);
}

/** Strings held at one fret by one finger: neighbours and barres, as few as there can be. */
type Group = { readonly fret: number; readonly strings: readonly number[] };

function groupsAt(frets: readonly (number | null)[], fret: number): Group[] {
  const groups: Group[] = [];
  frets.forEach((own, string) => {
    if (own !== fret) return;
    const last = groups[groups.length - 1];
    const from = last?.strings[last.strings.length - 1];
    const clear =
      from !== undefined &&
      frets
        .slice(from + 1, string)
        .every((between) => between === null || between > fret || between === fret);
    if (last && clear) groups[groups.length - 1] = { fret, strings: [...last.strings, string] };
    else groups.push({ fret, strings: [string] });
  });
  return groups;
}

/**
 * Fingers in order of fret, on one fret from the low string up; each as near to a finger a fret as the others
 * leave room for.
 */
function assign(
  frets: readonly (number | null)[],
  groups: readonly Group[],
  lowest: number,
): (number | null)[] {
  const fingers: (number | null)[] = frets.map((fret) => (fret === 0 ? 0 : null));
  let finger = 0;
  groups.forEach(({ fret, strings }, index) => {
    const natural = Math.min(4, fret - lowest + 1);
    finger = Math.max(finger + 1, Math.min(natural, 4 - (groups.length - 1 - index)));
    for (const string of strings) fingers[string] = finger;
  });
  return fingers;
}
