import { harmonyOf, sectionsOf, timelineOf, type Chart } from '../chart';
import { accepted, nearestOf, refused, type Outcome, type Problem } from '../shared';
import { readHand } from './handWords';
import { HEIGHT_INTENTS, type HeightIntent } from './schools';
import { readPlanId, type Where } from './settings';
import type { PlanPartWords, PlanWords, SettingsWords } from './words';

const EXAMPLE = 'every I: major-minor-blend';

/**
 * A part of a plan as it is typed: where, a colon, the school, and what is set in it after semicolons:
 * `every I: major-minor-blend`, `bars 5-8, chorus 2: home-scale; home=A minor pentatonic; aims=3 5`.
 */
export function readPlanPart(text: string): Outcome<PlanPartWords> {
  const colon = text.indexOf(':');
  if (colon < 0)
    return refused({
      code: 'plan.part',
      message: `“${text}” names no school: write where, a colon, and the school.`,
      suggestion: EXAMPLE,
    });
  const where = readWhere(text.slice(0, colon));
  if (!where.ok) return where;
  const [school = '', ...settings] = text
    .slice(colon + 1)
    .split(';')
    .map((one) => one.trim());
  const id = readPlanId(school);
  if (!id.ok) return id;
  let plan: SettingsWords = { id: id.value };
  for (const setting of settings) {
    const read = readSetting(setting);
    if (!read.ok) return read;
    plan = { ...plan, ...read.value };
  }
  return accepted({ where: where.value, plan });
}

type ReadWhere = (text: string) => Partial<Where> | null;

const PLACES: readonly ReadWhere[] = [
  (text) => {
    const found = /^bars?\s+(\d{1,3})(?:\s*(?:-|–|to)\s*(\d{1,3}))?$/i.exec(text);
    return found ? { bars: [Number(found[1]), Number(found[2] ?? found[1])] } : null;
  },
  (text) => {
    const found = /^chorus\s+(\d{1,3})$/i.exec(text);
    return found ? { chorus: Number(found[1]) } : null;
  },
  (text) => {
    const found = /^(?:section\s+|\[)([^\]]{1,40})\]?$/i.exec(text);
    return found?.[1] ? { section: found[1].trim() } : null;
  },
  (text) => {
    const found = /^chord\s+(\S{1,24})$/i.exec(text);
    return found?.[1] ? { chord: found[1] } : null;
  },
  (text) => {
    const found = /^(?:every\s+)?((?:V|vii|ii|subV)\/[b#]?[IViv]+|subV|[b#]?[IViv]+)$/.exec(text);
    return found?.[1] ? { degree: found[1] } : null;
  },
];

function readWhere(text: string): Outcome<Where> {
  let where: Where = {};
  for (const piece of text.split(',').map((one) => one.trim())) {
    const found = PLACES.map((read) => read(piece)).find((one) => one !== null);
    if (!found)
      return refused({
        code: 'plan.where',
        message: `“${piece}” is no place: write every I, chord Dm7, section B, bars 5-8 or chorus 2.`,
        suggestion: EXAMPLE,
      });
    where = { ...where, ...found };
  }
  return accepted(where);
}

const isHeight = (text: string): text is HeightIntent => (HEIGHT_INTENTS as readonly string[]).includes(text);

const SETTINGS: Readonly<Record<string, (value: string) => Partial<SettingsWords> | null>> = {
  home: (home) => ({ home }),
  mode: (mode) => ({ mode }),
  degrees: (degrees) => ({ degrees }),
  aims: (value) => ({ aims: value.split(/\s+/) }),
  target: (value) =>
    value === 'root' || value === 'third' || value === 'fifth' || value === 'seventh'
      ? { target: value }
      : null,
  height: (height) => (isHeight(height) ? { height } : null),
  overlay: (overlay) => ({ overlay }),
  hand: (hand) => (readHand(hand).ok ? { hand } : null),
};

function readSetting(text: string): Outcome<Partial<SettingsWords>> {
  if (text === 'tonic-six') return accepted({ tonicSix: true });
  const [, name = '', value = ''] = /^([a-z]+)\s*=\s*(.+)$/s.exec(text) ?? [];
  const read = SETTINGS[name]?.(value.trim());
  if (read) return accepted(read);
  const names = [...Object.keys(SETTINGS), 'tonic-six'];
  return refused({
    code: 'plan.setting',
    message: `“${text}” sets nothing: ${names.join(', ')} can be set.`,
    suggestion: `${nearestOf(name || text, names) ?? 'home'}=`,
  });
}

/** Parts of a plan over what the chart does not have: told, and left standing. */
export function misplacedParts(words: PlanWords, chart: Chart): Problem[] {
  const sections = sectionsOf(chart).map(({ name }) => name);
  const { readings } = harmonyOf(chart, timelineOf(chart, 120));
  const degrees = new Set(readings.map((one) => one?.degree));
  const chords = new Set(readings.map((one) => one?.chord.symbol));
  return (words.parts ?? []).flatMap(({ where }, index): Problem[] => {
    const said = (message: string): Problem[] => [{ code: 'plan.nowhere', message, path: `parts.${index}` }];
    const { bars, section, degree, chord } = where;
    if (bars && (bars[0] > bars[1] || bars[1] > chart.bars.length))
      return said(`This form has ${chart.bars.length} bars: there are no bars ${bars[0]} to ${bars[1]}.`);
    if (section !== undefined && !sections.includes(section))
      return said(`No section of this form is called ${section}.`);
    if (degree !== undefined && !degrees.has(degree)) return said(`No chord of this form is its ${degree}.`);
    return chord !== undefined && !chords.has(chord) ? said(`${chord} is no chord of this form.`) : [];
  });
}
