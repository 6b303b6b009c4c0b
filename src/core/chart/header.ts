import { refused, type Problem } from '../shared';
import { readKey, readScale, type Key, type Scale } from '../music';
import { isMeter, type Meter } from './chart';
import { readOverride, type Override } from './override';

/** What header lines say. A field is undefined until a line says it. */
export type Header = {
  title?: string;
  key?: Key;
  meter?: Meter;
  tempo?: number;
  feel?: string;
  pickup?: number;
  reading?: Override;
  /** The home scale. */
  home?: Scale;
};

const FIELD = /\b(title|key|meter|tempo|feel|pickup|reading|home)\s*:/g;

/** Does the line hold header fields? A title takes the rest of its line. */
export const isHeader = (line: string): boolean =>
  /^\s*(?:title|key|meter|tempo|feel|pickup|reading|home)\s*:/.test(line);

/** Reads `key: Bb   tempo: 96`; problems carry their column in the line. */
export function readHeader(line: string): { header: Header; problems: Problem[] } {
  const header: Header = {};
  const problems: Problem[] = [];
  const title = /^\s*title\s*:(.*)$/.exec(line);
  if (title) return { header: { title: (title[1] ?? '').trim() }, problems };
  const fields = [...line.matchAll(FIELD)];
  fields.forEach((field, index) => {
    const from = field.index + field[0].length;
    const raw = line.slice(from, fields[index + 1]?.index ?? line.length);
    const problem = setField(header, field[1] ?? '', raw.trim());
    if (problem)
      problems.push({
        ...problem,
        column: from + raw.length - raw.trimStart().length + (problem.column ?? 1),
        length: Math.max(1, raw.trim().length - (problem.column ?? 1) + 1),
      });
  });
  return { header, problems };
}

function setField(header: Header, name: string, value: string): Problem | null {
  return FIELDS[name]?.(header, value) ?? null;
}

type SetField = (header: Header, value: string) => Problem | null;

const setMeter: SetField = (header, value) => {
  const found = /^(\d{1,2})\/(\d{1,2})$/.exec(value);
  const meter = { upper: Number(found?.[1]), lower: Number(found?.[2]) };
  if (!isMeter(meter)) return problem('meter', `“${value}” is not a meter like 4/4, 3/4 or 6/8.`, '4/4');
  header.meter = meter;
  return null;
};

const setTempo: SetField = (header, value) => {
  const tempo = Number(value);
  if (!(tempo >= 20 && tempo <= 400))
    return problem('tempo', `“${value}” is not a tempo from 20 to 400 beats a minute.`, '120');
  header.tempo = tempo;
  return null;
};

const setPickup: SetField = (header, value) => {
  const beats = Number(value);
  if (value === '' || !(beats >= 0 && beats <= 16))
    return problem('pickup', `“${value}” is not a number of pickup beats.`, '1');
  header.pickup = beats;
  return null;
};

/** Each field of a header that says more than words, and how it is read; others are kept as they are. */
const FIELDS: Readonly<Partial<Record<string, SetField>>> = {
  key: (header, value) => {
    const key = readKey(value);
    if (!key.ok) return key.problems[0];
    header.key = key.value;
    return null;
  },
  home: (header, value) => {
    const home = readScale(value);
    if (!home.ok) return home.problems[0];
    header.home = home.value;
    return null;
  },
  meter: setMeter,
  tempo: setTempo,
  pickup: setPickup,
  reading: (header, value) => {
    const reading = readOverride(value);
    if (!reading.ok) return reading.problems[0];
    header.reading = reading.value;
    return null;
  },
  feel: (header, value) => {
    header.feel = value.toLowerCase();
    return null;
  },
};

const problem = (field: string, message: string, suggestion: string): Problem =>
  refused({ code: `chart.${field}`, message, suggestion }).problems[0];
