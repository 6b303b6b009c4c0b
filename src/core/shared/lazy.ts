/**
 * A value whose parts are worked out when they are first read, each once. Whoever reads them all (to print,
 * send or compare) sees a
 * plain object; whoever looks at two of them waits for two.
 */
export function lazily<T extends object>(parts: { readonly [K in keyof T]: () => T[K] }): T {
  const value = {} as T;
  for (const name of Object.keys(parts) as (keyof T)[]) {
    Object.defineProperty(value, name, {
      enumerable: true,
      configurable: true,
      get() {
        const made = parts[name]();
        Object.defineProperty(value, name, {
          value: made,
          enumerable: true,
          configurable: true,
          writable: false,
        });
        return made;
      },
    });
  }
  return value;
}

/** Worked out at the first call, remembered after. */
export function once<T>(make: () => T): () => T {
  let made: { readonly value: T } | null = null;
  return () => (made ??= { value: make() }).value;
}

/** Remembers its last answer, for as long as it is asked the same. */
export function latest<A extends readonly unknown[], T>(make: (...given: A) => T): (...given: A) => T {
  let last: { given: A; made: T } | null = null;
  return (...given) => {
    if (!last?.given.every((one, index) => one === given[index])) last = { given, made: make(...given) };
    return last.made;
  };
}
