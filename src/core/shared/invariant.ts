/**
 * The element of a list at an index that is known to lie inside it.
 * @throws Error where it does not: an invariant is broken
 */
export function elementAt<T>(list: ArrayLike<T>, index: number): T {
  const element = list[index];
  if (element === undefined) throw new Error(`No element ${index} in a list of ${list.length}.`);
  return element;
}

/**
 * An element that is known to be in its list, said at the place that reads it: `defined(list[index])`. As
 * `elementAt`, but several times as fast in inner loops, where one reading place sees one kind of list.
 * @throws Error where it is not: an invariant is broken
 */
export function defined<T>(element: T | undefined): T {
  if (element === undefined) throw new Error('An element that must be there is missing.');
  return element;
}

/**
 * A value that is known to be there.
 * @throws Error where it is not: an invariant is broken
 */
export function present<T>(value: T | null | undefined): T {
  if (value === null || value === undefined) throw new Error('A value that must be there is missing.');
  return value;
}
