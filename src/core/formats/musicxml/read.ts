import { LIMITS } from '../../contracts';
import { accepted, refused, type Outcome, type Problem, elementAt } from '../../shared';
import { isMeter, type Meter } from '../../chart';
import { noteName, readChord, type SpelledNote } from '../../music';
import { symbolOf, type KindDegree } from './kinds';
import { chartTextOf, type PlacedChord, type WrittenMeasure } from '../chartText';
import {
  all,
  attribute,
  childrenOf,
  first,
  nameOf,
  parseScore,
  partsOf,
  textAt,
  textOf,
  type XmlNode,
} from './tree';

/**
 * Reads the chords of a MusicXML score (partwise) as chart text: the first part that holds harmonies, with
 * its keys, meters, rehearsal marks, repeats
 * and endings. Entities and deep or huge documents are refused before they are read.
 * Source: MusicXML 4.0, W3C Music Notation Community Group.
 * @returns chart text, or what stands in the way with the measure it stands in
 */
export function readMusicXml(xml: string): Outcome<string> {
  const score = parseScore(xml);
  return score.ok ? readScore(score.value) : score;
}

function readScore(score: readonly XmlNode[]): Outcome<string> {
  const part = partsOf(score).find((measures) =>
    measures.some((measure) => measure.some((node) => 'harmony' in node)),
  );
  if (!part)
    return refused({
      code: 'musicxml.no-chords',
      message: 'No part of this score holds chord symbols.',
      suggestion: 'Export it with its chord symbols.',
    });
  if (part.length > LIMITS.musicxml.measures)
    return refused({
      code: 'musicxml.too-long',
      message: `This score has ${part.length} measures; ${LIMITS.musicxml.measures} are the most that are read.`,
    });
  const reading = new MusicXmlReading();
  const measures: WrittenMeasure[] = [];
  for (const [index, node] of part.entries()) {
    const read = reading.measure(node, index + 1);
    if (!read.ok) return read;
    measures.push(read.value);
  }
  openRepeats(measures);
  const misc = (name: string) => {
    for (const fields of all(first(score, 'identification') ?? [], 'miscellaneous'))
      for (const field of fields)
        if ('miscellaneous-field' in field && attribute(field, 'name') === name)
          return textOf(childrenOf(field));
    return '';
  };
  const readings = Array.from({ length: 64 }, (_, index) => misc(`reading-${index + 1}`)).filter(Boolean);
  return accepted(
    chartTextOf({
      title: textAt(score, 'work', 'work-title') || textAt(score, 'movement-title'),
      tempo: reading.tempo,
      feel: misc('feel') || null,
      pickup: Number(misc('pickup')) || 0,
      readings,
      measures,
    }),
  );
}

/** A repeat that is closed and was never opened goes back to the start, or to the last repeat’s end. */
function openRepeats(measures: WrittenMeasure[]): void {
  let from = 0;
  let open = false;
  measures.forEach((measure, index) => {
    if (measure.opens) open = true;
    if (!measure.closes) return;
    if ((!open && measure.ending === null) || (!open && from === 0))
      measures[from] = { ...elementAt(measures, from), opens: true };
    open = false;
    from = index + 1;
  });
}

const noMeter = ({ upper, lower }: Meter, number: number) =>
  refused({
    code: 'musicxml.meter',
    message: `“${String(upper).slice(0, 12)}/${String(lower).slice(0, 12)}” is not a meter like 4/4, 3/4 or 6/8.`,
    path: `measure ${number + 1}`,
  });

/** One pass over the measures; keeps what attributes have set so far. */
class MusicXmlReading {
  tempo: number | null = null;
  private divisions = 1;
  private meter = { upper: 4, lower: 4 };
  private key: string | null = null;
  private sounding: string | null = null;
  private same = false;

  measure(nodes: readonly XmlNode[], number: number): Outcome<WrittenMeasure> {
    const chords: PlacedChord[] = [];
    const bar: BarSigns = { opens: false, closes: false, ending: null, section: null };
    let at = 0;
    for (const node of nodes) {
      const name = nameOf(node);
      const inside = childrenOf(node);
      at += this.advance(name, inside);
      if (name === 'attributes') {
        this.attributes(inside);
        if (!isMeter(this.meter)) return noMeter(this.meter, number);
      } else if (name === 'barline') readBarLine(inside, bar);
      else if (name === 'direction') {
        bar.section ??= textAt(inside, 'direction-type', 'rehearsal') || null;
        this.readTempo(inside);
      } else if (name === 'harmony') {
        const symbol = this.harmony(node, inside, number);
        if (!symbol.ok) return symbol;
        const offset = Number(textAt(inside, 'offset')) || 0;
        chords.push({ at: (at + offset) / this.divisions, symbol: symbol.value });
      }
    }
    const laid = this.settle(chords, (this.meter.upper * 4) / this.meter.lower);
    return accepted({
      ...bar,
      chords: laid,
      meter: this.meter,
      key: this.key,
      section: bar.section?.replace(/[\]|]/g, '').slice(0, 40) || null,
      repeats: this.same && laid.length > 0,
    });
  }

  /** How far an element moves the place in the measure, in divisions. */
  private advance(name: string, inside: readonly XmlNode[]): number {
    const duration = Number(textAt(inside, 'duration')) || 0;
    if (name === 'backup') return -duration;
    if (name === 'forward') return duration;
    if (name !== 'note' || inside.some((child) => 'chord' in child || 'grace' in child)) return 0;
    return duration;
  }

  /** A measure that names no chord at its start goes on with the one before. */
  private settle(chords: readonly PlacedChord[], quarters: number): PlacedChord[] {
    const inside = chords.filter(({ at }) => at >= -1e-6 && at < quarters - 1e-6).sort((a, b) => a.at - b.at);
    const laid =
      (inside[0]?.at ?? 1) > 1e-6 ? [{ at: 0, symbol: this.sounding ?? 'N.C.' }, ...inside] : inside;
    this.sounding = elementAt(laid, laid.length - 1).symbol;
    return laid;
  }

  private attributes(nodes: readonly XmlNode[]): void {
    this.divisions = Number(textAt(nodes, 'divisions')) || this.divisions;
    const [upper, lower] = [
      Number(textAt(nodes, 'time', 'beats')),
      Number(textAt(nodes, 'time', 'beat-type')),
    ];
    if (upper > 0 && lower > 0) this.meter = { upper, lower };
    const key = first(nodes, 'key');
    if (key && textAt(key, 'fifths') !== '')
      this.key = keyOf(Number(textAt(key, 'fifths')), textAt(key, 'mode') === 'minor');
    for (const style of all(nodes, 'measure-style'))
      for (const child of style)
        if ('measure-repeat' in child) this.same = attribute(child, 'type') === 'start';
  }

  private readTempo(nodes: readonly XmlNode[]): void {
    if (this.tempo !== null) return;
    const beats = Number(textAt(nodes, 'direction-type', 'metronome', 'per-minute'));
    const sound = nodes.find((node) => 'sound' in node);
    const tempo = beats || Number(sound ? attribute(sound, 'tempo') : NaN);
    if (tempo >= 20 && tempo <= 400) this.tempo = Math.round(tempo);
  }

  private harmony(node: XmlNode, inside: readonly XmlNode[], number: number): Outcome<string> {
    const place = (problem: Problem): { ok: false; problems: [Problem] } => ({
      ok: false,
      problems: [{ ...problem, path: `measure ${number}`, bar: number }],
    });
    const kindNode = inside.find((child) => 'kind' in child);
    const kind = kindNode ? textOf(childrenOf(kindNode)) : 'major';
    if (kind === 'none') return accepted('N.C.');
    const root = noteIn(first(inside, 'root'), 'root');
    if (!root)
      return place({
        code: 'musicxml.root-note',
        message: 'A chord here has no root.',
        suggestion: 'Write its root, or delete it.',
      });
    const degrees: KindDegree[] = all(inside, 'degree').map((degree) => ({
      value: Number(textAt(degree, 'degree-value')),
      alter: Number(textAt(degree, 'degree-alter')) || 0,
      type: textAt(degree, 'degree-type') as KindDegree['type'],
    }));
    const bass = noteIn(first(inside, 'bass'), 'bass');
    const tail = bass && noteName(bass) !== noteName(root) ? `/${noteName(bass)}` : '';
    const built = symbolOf(noteName(root), { kind, degrees });
    const shown = noteName(root) + (kindNode ? attribute(kindNode, 'text') : '');
    // the text it was printed with is kept where it means the same
    if (kindNode?.[':@']?.text !== undefined && (!built.ok || sameTones(shown, built.value))) {
      if (readChord(shown + tail).ok) return accepted(shown + tail);
      if (built.ok) return accepted(built.value + tail);
      return place(built.problems[0]);
    }
    return built.ok ? accepted(built.value + tail) : place(built.problems[0]);
  }
}

function sameTones(a: string, b: string): boolean {
  const pcs = (symbol: string) => {
    const read = readChord(symbol);
    return read.ok
      ? [...read.value.tones, ...read.value.colours]
          .map((tone) => tone.pc)
          .sort()
          .join(' ')
      : null;
  };
  return pcs(a) !== null && pcs(a) === pcs(b);
}

function noteIn(nodes: readonly XmlNode[] | null, part: 'root' | 'bass'): SpelledNote | null {
  const step = nodes ? textAt(nodes, `${part}-step`) : '';
  const alter = nodes ? Number(textAt(nodes, `${part}-alter`)) || 0 : 0;
  return /^[A-G]$/.test(step) && Number.isInteger(alter) && Math.abs(alter) <= 2
    ? { letter: step as SpelledNote['letter'], alter }
    : null;
}

const CIRCLE = ['F', 'C', 'G', 'D', 'A', 'E', 'B'];
/** The tonic so many fifths from C; minor three further. */
function keyOf(fifths: number, minor: boolean): string | null {
  const place = fifths + (minor ? 4 : 1);
  if (!Number.isInteger(fifths) || Math.abs(fifths) > 11) return null;
  const letter = elementAt(CIRCLE, ((place % 7) + 7) % 7);
  const alter = Math.floor(place / 7);
  return letter + (alter < 0 ? 'b'.repeat(-alter) : '#'.repeat(alter)) + (minor ? 'm' : '');
}

/** What the bar lines of a measure and its rehearsal mark say. */
type BarSigns = { opens: boolean; closes: boolean; ending: number | null; section: string | null };

function readBarLine(inside: readonly XmlNode[], bar: BarSigns): void {
  for (const child of inside) {
    const isRepeat = 'repeat' in child;
    if (isRepeat && attribute(child, 'direction') === 'forward') bar.opens = true;
    else if (isRepeat) bar.closes = true;
    if ('ending' in child && attribute(child, 'type') === 'start')
      bar.ending = Number(/\d+/.exec(attribute(child, 'number'))?.[0] ?? 0) || null;
  }
}
