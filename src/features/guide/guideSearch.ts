/** What a section is looked for by. */
type Findable = { readonly title: string; readonly text: string };

/**
 * Sections that hold every word of a query, those with it in their title first; all of them, in their order, for a
 * query without words.
 */
export function sectionsFound<T extends Findable>(sections: readonly T[], query: string): readonly T[] {
  const wanted = query.toLowerCase().split(/\s+/).filter(Boolean);
  const holds = (text: string) => wanted.every((word) => text.toLowerCase().includes(word));
  const found = sections.filter(({ text }) => holds(text));
  if (wanted.length === 0) return found;
  return [...found.filter(({ title }) => holds(title)), ...found.filter(({ title }) => !holds(title))];
}
