import { XMLParser } from 'fast-xml-parser';
import { accepted, refused, type Outcome, type Problem } from '../../vocabulary';
import { noteName, readChord, type SpelledNote } from '../../music';
import { symbolOf, type Degree } from './kinds';
import { chartTextOf, type PlacedChord, type WrittenMeasure } from '../chartText';

export const MUSICXML_LIMITS = { characters: 8_000_000, depth: 40, measures: 2_000 } as const;

type Node = Record<string, unknown> & { ':@'?: Record<string, string> };

/**
 * Reads the chords of a MusicXML score (partwise) as chart text: the first part that holds harmonies, with its keys, meters, rehearsal marks, repeats
 * and endings. Entities and deep or huge documents are refused before they are read.
 * Source: MusicXML 4.0, W3C Music Notation Community Group.
 * @returns chart text, or what stands in the way with the measure it stands in
 */
export function readMusicXml(xml: string): Outcome<string> {
  const hostile = refuseHostile(xml);
  if (hostile) return refused(hostile);
  let tree: Node[];
  try {
    tree = new XMLParser({ preserveOrder: true, ignoreAttributes: false, attributeNamePrefix: '', trimValues: true, parseTagValue: false, parseAttributeValue: false, processEntities: true }).parse(xml, true) as Node[];
  } catch (error) {
    return refused({ code: 'musicxml.unreadable', message: `This is not well-formed XML: ${(error as Error).message}` });
  }
  const score = tree.find((node) => 'score-partwise' in node);
  if (!score) return refused({ code: 'musicxml.root', message: 'This is not a partwise MusicXML score.', suggestion: 'Export it as uncompressed MusicXML, by parts.' });
  return readScore(kids(score, 'score-partwise'));
}

function refuseHostile(xml: string): Problem | null {
  if (xml.length > MUSICXML_LIMITS.characters) return { code: 'musicxml.too-large', message: `This file is ${Math.round(xml.length / 1e6)} million characters long; ${MUSICXML_LIMITS.characters / 1e6} million are the most.` };
  if (xml.startsWith('PK')) return { code: 'musicxml.compressed', message: 'This is a compressed score.', suggestion: 'Unpack it, or export it as uncompressed MusicXML.' };
  if (/<!ENTITY|<!ELEMENT|<!ATTLIST|<!DOCTYPE[^>]*\[/i.test(xml)) return { code: 'musicxml.entities', message: 'This file defines its own entities; a score needs none.', suggestion: 'Export it again from the program that made it.' };
  let depth = 0;
  for (const found of xml.matchAll(/<(\/)?[A-Za-z][^<>]*?(\/)?>/g)) {
    depth += found[1] ? -1 : found[2] ? 0 : 1;
    if (depth > MUSICXML_LIMITS.depth) return { code: 'musicxml.deep', message: `This file nests deeper than ${MUSICXML_LIMITS.depth} elements; a score does not.` };
  }
  return null;
}

const nameOf = (node: Node): string => Object.keys(node).find((key) => key !== ':@') ?? '';
const kids = (node: Node, name: string): Node[] => (Array.isArray(node[name]) ? (node[name] as Node[]) : []);
const all = (nodes: readonly Node[], name: string): Node[][] => nodes.filter((node) => name in node).map((node) => kids(node, name));
const first = (nodes: readonly Node[], name: string): Node[] | null => all(nodes, name)[0] ?? null;
const textOf = (nodes: readonly Node[] | null): string => (nodes ?? []).map((node) => String(node['#text'] ?? '')).join('').trim();
const valueOf = (nodes: readonly Node[], ...path: string[]): string => {
  let at: readonly Node[] | null = nodes;
  for (const name of path) at = at ? first(at, name) : null;
  return textOf(at);
};
const attribute = (node: Node, name: string): string => String(node[':@']?.[name] ?? '');

function readScore(score: readonly Node[]): Outcome<string> {
  const part = all(score, 'part').find((measures) => measures.some((measure) => kids(measure, 'measure').some((node) => 'harmony' in node)));
  if (!part) return refused({ code: 'musicxml.no-chords', message: 'No part of this score holds chord symbols.', suggestion: 'Export it with its chord symbols.' });
  if (part.length > MUSICXML_LIMITS.measures) return refused({ code: 'musicxml.too-long', message: `This score has ${part.length} measures; ${MUSICXML_LIMITS.measures} are the most that are read.` });
  const reading = new Reading();
  const measures: WrittenMeasure[] = [];
  for (const [index, node] of part.entries()) {
    const read = reading.measure(kids(node, 'measure'), index + 1);
    if (!read.ok) return read;
    measures.push(read.value);
  }
  openRepeats(measures);
  const misc = (name: string) => {
    for (const fields of all(first(score, 'identification') ?? [], 'miscellaneous')) for (const field of fields) if ('miscellaneous-field' in field && attribute(field, 'name') === name) return textOf(kids(field, 'miscellaneous-field'));
    return '';
  };
  const readings = Array.from({ length: 64 }, (_, index) => misc(`reading-${index + 1}`)).filter(Boolean);
  return accepted(chartTextOf({
    title: valueOf(score, 'work', 'work-title') || valueOf(score, 'movement-title'), tempo: reading.tempo, feel: misc('feel') || null, pickup: Number(misc('pickup')) || 0, readings, measures,
  }));
}

/** A repeat that is closed and was never opened goes back to the start, or to the last repeat’s end. */
function openRepeats(measures: WrittenMeasure[]): void {
  let from = 0;
  let open = false;
  measures.forEach((measure, index) => {
    if (measure.opens) open = true;
    if (!measure.closes) return;
    if (!open && measure.ending === null || (!open && from === 0)) measures[from] = { ...measures[from]!, opens: true };
    open = false;
    from = index + 1;
  });
}

/** One pass over the measures; keeps what attributes have set so far. */
class Reading {
  tempo: number | null = null;
  private divisions = 1;
  private meter = { upper: 4, lower: 4 };
  private key: string | null = null;
  private sounding: string | null = null;
  private same = false;

  measure(nodes: readonly Node[], number: number): Outcome<WrittenMeasure> {
    const chords: PlacedChord[] = [];
    let [at, opens, closes, ending, section] = [0, false, false, null as number | null, null as string | null];
    for (const node of nodes) {
      const name = nameOf(node);
      const inside = kids(node, name);
      if (name === 'attributes') this.attributes(inside);
      else if (name === 'harmony') {
        const symbol = this.harmony(node, inside, number);
        if (!symbol.ok) return symbol;
        chords.push({ at: (at + (Number(valueOf(inside, 'offset')) || 0)) / this.divisions, symbol: symbol.value });
      } else if (name === 'note') {
        if (!inside.some((child) => 'chord' in child || 'grace' in child)) at += Number(valueOf(inside, 'duration')) || 0;
      } else if (name === 'backup') at -= Number(valueOf(inside, 'duration')) || 0;
      else if (name === 'forward') at += Number(valueOf(inside, 'duration')) || 0;
      else if (name === 'direction') {
        section ??= valueOf(inside, 'direction-type', 'rehearsal') || null;
        this.readTempo(inside);
      } else if (name === 'barline')
        for (const child of inside) {
          if ('repeat' in child && attribute(child, 'direction') === 'forward') opens = true;
          else if ('repeat' in child) closes = true;
          if ('ending' in child && attribute(child, 'type') === 'start') ending = Number(/\d+/.exec(attribute(child, 'number'))?.[0] ?? 0) || null;
        }
    }
    const quarters = (this.meter.upper * 4) / this.meter.lower;
    const laid = this.settle(chords, quarters);
    return accepted({ chords: laid, meter: this.meter, key: this.key, section: section?.replace(/[\]|]/g, '').slice(0, 40) || null, opens, closes, ending, repeats: this.same && laid.length > 0 });
  }

  /** A measure that names no chord at its start goes on with the one before. */
  private settle(chords: readonly PlacedChord[], quarters: number): PlacedChord[] {
    const inside = chords.filter(({ at }) => at >= -1e-6 && at < quarters - 1e-6).sort((a, b) => a.at - b.at);
    const laid = (inside[0]?.at ?? 1) > 1e-6 ? [{ at: 0, symbol: this.sounding ?? 'N.C.' }, ...inside] : inside;
    this.sounding = laid[laid.length - 1]!.symbol;
    return laid;
  }

  private attributes(nodes: readonly Node[]): void {
    this.divisions = Number(valueOf(nodes, 'divisions')) || this.divisions;
    const [upper, lower] = [Number(valueOf(nodes, 'time', 'beats')), Number(valueOf(nodes, 'time', 'beat-type'))];
    if (upper > 0 && lower > 0) this.meter = { upper, lower };
    const key = first(nodes, 'key');
    if (key && valueOf(key, 'fifths') !== '') this.key = keyOf(Number(valueOf(key, 'fifths')), valueOf(key, 'mode') === 'minor');
    for (const style of all(nodes, 'measure-style')) for (const child of style) if ('measure-repeat' in child) this.same = attribute(child, 'type') === 'start';
  }

  private readTempo(nodes: readonly Node[]): void {
    if (this.tempo !== null) return;
    const beats = Number(valueOf(nodes, 'direction-type', 'metronome', 'per-minute'));
    const sound = nodes.find((node) => 'sound' in node);
    const tempo = beats || Number(sound ? attribute(sound, 'tempo') : NaN);
    if (tempo >= 20 && tempo <= 400) this.tempo = Math.round(tempo);
  }

  private harmony(node: Node, inside: readonly Node[], number: number): Outcome<string> {
    const place = (problem: Problem): { ok: false; problems: [Problem] } => ({ ok: false, problems: [{ ...problem, path: `measure ${number}`, bar: number }] });
    const kindNode = inside.find((child) => 'kind' in child);
    const kind = kindNode ? textOf(kids(kindNode, 'kind')) : 'major';
    if (kind === 'none') return accepted('N.C.');
    const root = noteIn(first(inside, 'root'), 'root');
    if (!root) return place({ code: 'musicxml.root-note', message: 'A chord here has no root.', suggestion: 'Write its root, or delete it.' });
    const degrees: Degree[] = all(inside, 'degree').map((degree) => ({ value: Number(valueOf(degree, 'degree-value')), alter: Number(valueOf(degree, 'degree-alter')) || 0, type: valueOf(degree, 'degree-type') as Degree['type'] }));
    const bass = noteIn(first(inside, 'bass'), 'bass');
    const tail = bass && noteName(bass) !== noteName(root) ? `/${noteName(bass)}` : '';
    const built = symbolOf(noteName(root), { kind, degrees });
    const shown = noteName(root) + (kindNode ? attribute(kindNode, 'text') : '');
    // the text it was printed with is kept where it means the same
    if (kindNode?.[':@']?.text !== undefined && (!built.ok || sameTones(shown, built.value))) return readChord(shown + tail).ok ? accepted(shown + tail) : built.ok ? accepted(built.value + tail) : place(built.problems[0]);
    return built.ok ? accepted(built.value + tail) : place(built.problems[0]);
  }
}

function sameTones(a: string, b: string): boolean {
  const pcs = (symbol: string) => { const read = readChord(symbol); return read.ok ? [...read.value.tones, ...read.value.colours].map((tone) => tone.pc).sort().join(' ') : null; };
  return pcs(a) !== null && pcs(a) === pcs(b);
}

function noteIn(nodes: readonly Node[] | null, part: 'root' | 'bass'): SpelledNote | null {
  const step = nodes ? valueOf(nodes, `${part}-step`) : '';
  const alter = nodes ? Number(valueOf(nodes, `${part}-alter`)) || 0 : 0;
  return /^[A-G]$/.test(step) && Number.isInteger(alter) && Math.abs(alter) <= 2 ? { letter: step as SpelledNote['letter'], alter } : null;
}

const CIRCLE = ['F', 'C', 'G', 'D', 'A', 'E', 'B'];
/** The tonic so many fifths from C; minor three further. */
function keyOf(fifths: number, minor: boolean): string | null {
  const place = fifths + (minor ? 4 : 1);
  if (!Number.isInteger(fifths) || Math.abs(fifths) > 11) return null;
  const letter = CIRCLE[((place % 7) + 7) % 7]!;
  const alter = Math.floor(place / 7);
  return letter + (alter < 0 ? 'b'.repeat(-alter) : '#'.repeat(alter)) + (minor ? 'm' : '');
}
