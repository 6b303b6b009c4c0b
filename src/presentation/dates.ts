/** Days and times as they are written in the player's own language and country. Times in ms. */
export type Dates = {
  /** `Monday` */ readonly weekday: (at: number | Date) => string;
  /** `30 November` */ readonly day: (at: number | Date) => string;
  /** `Monday 30 November 2026` */ readonly whole: (at: number | Date) => string;
  /** `30 Nov` */ readonly shortDay: (at: number | Date) => string;
  /** `14:05` */ readonly time: (at: number | Date) => string;
  /** The day a week begins with: 0 is Sunday, 1 Monday. */
  readonly firstWeekday: number;
};

export const USUAL_LANGUAGE = 'en-GB';
const MONDAY = 1;

/** What older and newer engines call the same thing: which day a week begins with, 7 for Sunday. */
type WithWeek = Intl.Locale & {
  readonly weekInfo?: { readonly firstDay: number };
  getWeekInfo?(): { readonly firstDay: number };
};

const known = new Map<string, Dates>();

/** @param language as a browser names it (BCP 47), such as `en-US` */
export function datesIn(language: string): Dates {
  const made = known.get(language) ?? makeDates(language);
  known.set(language, made);
  return made;
}

function makeDates(language: string): Dates {
  const written = (options: Intl.DateTimeFormatOptions) => {
    const format = new Intl.DateTimeFormat(language, options);
    // engines differ in the space they put before a.m.: one that breaks no line looks the same
    return (at: number | Date) => format.format(at).replaceAll('\u202f', '\u00a0');
  };
  const locale = new Intl.Locale(language) as WithWeek;
  const week = locale.getWeekInfo?.() ?? locale.weekInfo;
  return {
    weekday: written({ weekday: 'long' }),
    day: written({ day: 'numeric', month: 'long' }),
    whole: written({ weekday: 'long', day: 'numeric', month: 'long', year: 'numeric' }),
    shortDay: written({ day: 'numeric', month: 'short' }),
    time: written({ hour: 'numeric', minute: '2-digit' }),
    firstWeekday: (week?.firstDay ?? MONDAY) % 7,
  };
}

/**
 * The language a browser asks for first, where it is one that dates can be written in.
 * @param accepted an Accept-Language header (RFC 9110, 12.5.4)
 */
export function languageOf(accepted: string | null): string {
  const first = accepted?.split(',')[0]?.split(';')[0]?.trim() ?? '';
  try {
    return Intl.DateTimeFormat.supportedLocalesOf(first)[0] ?? USUAL_LANGUAGE;
  } catch {
    return USUAL_LANGUAGE;
  }
}
