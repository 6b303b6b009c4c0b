import type { PlayedNote } from '@/core/analyse';
import { availableTensions, beatsPerBar, harmonyOf, strongBeats, timelineOf, type Chart } from '@/core/chart';
import {
  hasTone,
  intervalOver,
  isAdjacentIn,
  isChange,
  keyScaleKind,
  pitchClass,
  rootPc,
  scaleOn,
  semitonesAboveRoot,
  toneByRole,
  type Chord,
  type Scale,
} from '@/core/music';
import { cellAt, planOf, type PlanChoice } from '@/core/plan';
import { modulo } from '@/core/shared';

/*
 * The rules of judgement a second time: written sentence by sentence, without any speed, sharing no line with src/core/analyse. It knows notes without bends and
 * slides. Chords, scales, functions and plans are the chart's and the plan's own; what is read twice is what notes do over them.
 */

export type ReadNote = {
  onset: number;
  end: number;
  pitch: number;
  pc: number;
  event: number;
  top: boolean;
  grace: boolean;
  from?: number;
  chord: string | null;
  interval: string | null;
  tier: string;
  height: number;
  function: string;
  target?: number;
  flags: string[];
};
export type Read = {
  notes: ReadNote[];
  figures: string[];
  landings: {
    beat: number;
    note: number | null;
    timing: string;
    verdict: string;
    rest: boolean;
    resolution?: number;
    connection: string | null;
    fix: number | null;
  }[];
  phrases: { start: number; end: number; ending: string; crossed: number; pickup: number }[];
  coverage: {
    chord: string;
    count: number;
    byInterval: Record<string, { count: number; beats: number; strong: number }>;
    missing: string[];
  }[];
  muted: { beat: number; chord: string; verdict: string }[];
};

const E = 1e-6;
type Place = { at: number; chorus: number; start: number; end: number; chord: Chord | null };

export function secondReading(request: {
  chart: Chart;
  tempo: number;
  notes: readonly PlayedNote[];
  plan: PlanChoice;
}): Read {
  const { chart, tempo } = request;
  const form = timelineOf(chart, tempo);
  const harmony = harmonyOf(chart, form);
  const plan = planOf(request.plan, harmony, form);
  const ms = (value: number) => (value / 1000) * (tempo / 60);
  const on = Math.max(0.12, ms(60));
  const tol = Math.min(on, 0.25);
  const notes: ReadNote[] = request.notes
    .map((note) => ({
      onset: note.onsetBeat,
      end: note.onsetBeat + note.durationBeats,
      pitch: note.midi,
      pc: modulo(note.midi, 12),
      event: -1,
      top: false,
      grace: false,
      chord: null,
      interval: null,
      tier: '',
      height: 0,
      function: '',
      flags: [],
    }))
    .sort((a, b) => a.onset - b.onset || a.pitch - b.pitch);

  // events: struck within 50 ms of the first, each before any of the others has ended
  const groups: ReadNote[][] = [];
  for (const note of notes) {
    const group = groups[groups.length - 1];
    if (
      group &&
      note.onset - group[0]!.onset <= ms(50) + E &&
      group.every((other) => note.onset < other.end - E)
    )
      group.push(note);
    else groups.push([note]);
  }
  // graces: short, gap of at most 30 ms, to a longer note 1–3 semitones away; chains of them before one longer note
  const short = (note: ReadNote) => note.end - note.onset < Math.min(0.2, ms(90)) - E;
  const struck = new Map(notes.map((note) => [note, note.onset]));
  const mayLead = (a: ReadNote, b: ReadNote) =>
    Math.abs(a.pitch - b.pitch) >= 1 &&
    Math.abs(a.pitch - b.pitch) <= 3 &&
    struck.get(b)! - a.end <= ms(30) + E;
  for (let index = groups.length - 1; index > 0; index--) {
    const last = groups[index - 1]!;
    if (last.length !== 1 || last[0]!.grace || !short(last[0]!)) continue;
    const main = groups[index]!.find(
      (note) =>
        !note.grace &&
        mayLead(last[0]!, note) &&
        note.end - struck.get(note)! > last[0]!.end - last[0]!.onset + E,
    );
    if (!main) continue;
    const chain = [last[0]!];
    for (
      let back = index - 2;
      back >= 0 &&
      groups[back]!.length === 1 &&
      short(groups[back]![0]!) &&
      mayLead(groups[back]![0]!, chain[0]!);
      back--
    )
      chain.unshift(groups[back]![0]!);
    for (const grace of chain) grace.grace = true;
    main.onset = chain[0]!.onset;
    main.from = notes.indexOf(chain[0]!);
  }
  const events = groups
    .map((group) => group.filter((note) => !note.grace))
    .filter((group) => group.length > 0);
  let event = 0;
  for (const group of groups) {
    for (const note of group) note.event = event;
    if (group.some((note) => !note.grace)) event++;
  }
  const line = events.map((group) => group.reduce((best, note) => (note.pitch >= best.pitch ? note : best)));
  for (const note of line) note.top = true;
  const idx = (note: ReadNote) => notes.indexOf(note);

  // the form, walked through
  const lastOnset = line.length ? line[line.length - 1]!.onset : 0;
  const choruses = Math.max(1, Math.floor((lastOnset + E) / form.formBeats) + 1);
  const until = choruses * form.formBeats;
  const walk: Place[] = [];
  for (let chorus = 0; chorus <= choruses; chorus++)
    for (const stretch of form.chordSpans)
      walk.push({
        at: stretch.index,
        chorus,
        start: stretch.start + chorus * form.formBeats,
        end: stretch.end + chorus * form.formBeats,
        chord: stretch.chord,
      });
  const barAt = (beat: number) => {
    const inForm = modulo(Math.max(0, beat), form.formBeats);
    const bar = form.bars.filter((one) => one.start <= inForm + 1e-9).pop()!;
    return { meter: bar.meter, beats: beatsPerBar(bar.meter), start: Math.max(0, beat) - inForm + bar.start };
  };
  const strong = (beat: number) =>
    Math.abs(beat - Math.round(beat)) <= on + E &&
    strongBeats(barAt(wrapped(beat)).meter).includes(wrapped(beat) - Math.round(barAt(wrapped(beat)).start));
  const wrapped = (beat: number) => modulo(Math.round(beat), form.formBeats);
  const onBeat = (beat: number) => Math.abs(beat - Math.round(beat)) <= on + E;
  const soundingIndex = (beat: number): number => {
    const index = Math.max(
      0,
      walk.findIndex((one) => beat < one.end - 1e-9),
    );
    if (walk[index]!.chord) return index;
    let [from, to] = [index, index];
    while (from > 0 && !walk[from - 1]!.chord) from--;
    while (walk[to] && !walk[to]!.chord) to++;
    if (!walk[to]) return index;
    return walk[to]!.start - walk[from]!.start <= barAt(walk[from]!.start).beats + E ? to : index;
  };
  const reading = (place: Place) => harmony.readings[place.at];
  const home = (place: Place): Scale => harmony.homeScales[place.at]!;
  const bare = (place: Place): Scale => reading(place)?.scale ?? home(place);
  const inScale = (place: Place, pc: number) => {
    const own = reading(place);
    return own
      ? own.scale.pcs.includes(pc) ||
          own.chord.tones.some((tone) => tone.pc === pc) ||
          own.chord.colours.some((tone) => tone.pc === pc)
      : home(place).pcs.includes(pc);
  };
  const base = (place: Place, pc: number): 'chord' | 'colour' | 'scale' | 'outside' => {
    const own = reading(place);
    if (own && hasTone(own.chord, pc)) return 'chord';
    if (own && availableTensions(own.chord, own.scale).has(pc)) return 'colour';
    if (own && isAlteration(place, pc) && minorGoal(place)) return 'colour';
    return inScale(place, pc) || home(place).pcs.includes(pc) ? 'scale' : 'outside';
  };
  // T3.9: b9, #9 and b13 of a dominant seventh that falls a fifth, on a blues not of its I7 and IV7
  const followedBy = (place: Place) => {
    const own = reading(place)!;
    for (let step = 1; step < harmony.readings.length; step++) {
      const next = harmony.readings[(place.at + step) % harmony.readings.length];
      if (next && rootPc(next.chord) !== rootPc(own.chord)) return next.chord;
    }
    return own.chord;
  };
  const isBluesForm = harmony.character.blues || harmony.character.dominantVamp;
  const isBluesy = (place: Place) => isBluesForm || home(place).kind === 'blues';
  const tonicOf = (place: Place) => pitchClass(reading(place)!.key.tonic);
  // T10.6: a dominant, or the V, whose next chord lies a fifth below
  const isOnItsWay = (place: Place) => {
    const { chord, degree } = reading(place)!;
    const sounds = chord.quality === 'dominant' || (chord.quality === 'sus' && toneByRole(chord, 'seventh'));
    return (sounds || degree === 'V') && modulo(rootPc(followedBy(place)) - rootPc(chord), 12) === 5;
  };
  // T6.4: secondary or borrowed
  const isNotOfKey = (place: Place) => {
    const { chord, key } = reading(place)!;
    const above = modulo(rootPc(chord) - tonicOf(place), 12);
    if (isBluesy(place) && [0, 5, 7].includes(above)) return false;
    const own = scaleOn(key.tonic, keyScaleKind(key)).pcs;
    return chord.tones.some(
      ({ pc }) => !own.includes(pc) && !(key.minor && pc === modulo(tonicOf(place) - 1, 12)),
    );
  };
  const isAlteration = (place: Place, pc: number) => {
    const own = reading(place);
    if (!own || own.chord.quality !== 'dominant' || hasTone(own.chord, pc)) return false;
    const above = modulo(rootPc(own.chord) - pitchClass(own.key.tonic), 12);
    if (harmony.character.blues && (above === 5 || (above === 0 && !own.key.minor))) return false;
    if (modulo(rootPc(followedBy(place)) - rootPc(own.chord), 12) !== 5) return false;
    return [1, 3, 8].includes(modulo(pc - rootPc(own.chord), 12));
  };
  const minorGoal = (place: Place) => {
    return toneByRole(followedBy(place), 'third')?.semitones === 3;
  };

  // changes
  type Change = { place: number; at: number; until: number; from: Chord; to: Chord };
  const changes: Change[] = [];
  for (let index = 1; index < walk.length; index++) {
    const [before, now] = [walk[index - 1]!, walk[index]!];
    if (now.chorus >= choruses || !before.chord || !now.chord || !isChange(before.chord, now.chord)) continue;
    let end = index + 1;
    while (walk[end] && walk[end]!.chord && !isChange(walk[end - 1]!.chord!, walk[end]!.chord!)) end++;
    changes.push({
      place: index,
      at: now.start,
      until: Math.min(until, walk[end]?.start ?? until),
      from: before.chord,
      to: now.chord,
    });
  }

  // which chord each line note belongs to
  const linked = (place: number, gap = 1) =>
    place >= 0 && place + 1 < line.length && line[place + 1]!.onset - line[place]!.end <= gap + E;
  const alone = (place: number, at: number) =>
    !line.some(
      (other, where) => where !== place && other.onset > line[place]!.onset && other.onset < at + 0.5 - E,
    );
  const reach = Math.min(1.1, Math.max(0.6, ms(250)));
  const inReach = (note: ReadNote, at: number) => at - note.onset <= reach + E && at - note.onset > on + E;
  const anticipates = line.map(() => false);
  const leadIns = line.map(() => false);
  const belongs = line.map((note, place) => {
    const own = soundingIndex(note.onset + tol);
    const change = changes.find(({ at }) => inReach(note, at));
    if (change) {
      const voices = events[place]!;
      const sharedBy = (chord: Chord) => voices.filter((voice) => hasTone(chord, voice.pc)).length;
      const isHit = new Set(voices.map(({ pitch }) => pitch)).size >= 3;
      const fits = isHit
        ? sharedBy(change.to) > sharedBy(change.from)
        : ['chord', 'colour'].includes(base(walk[change.place]!, note.pc)) && !hasTone(change.from, note.pc);
      const rings =
        note.end >= change.at + 0.25 - E &&
        !line.some((other) => Math.abs(other.onset - change.at) <= on + E);
      if (fits && (rings || alone(place, change.at))) {
        anticipates[place] = true;
        return change.place;
      }
    }
    return own;
  });
  // landings need their voices; lead-ins need landings on the change
  const onAt = (change: Change) => {
    const near = line
      .map((note, place) => ({ place, off: Math.abs(note.onset - change.at) }))
      .filter(({ off }) => off <= on + E)
      .sort((a, b) => a.off - b.off);
    return near.find(({ place }) => events[place]!.some((note) => hasTone(change.to, note.pc))) ?? near[0];
  };
  for (const change of changes) {
    const landing = onAt(change);
    if (!landing || !events[landing.place]!.some((note) => hasTone(change.to, note.pc))) continue;
    const presentStart = walk[change.place - 1]!.start;
    let first = landing.place;
    while (
      first > 0 &&
      linked(first - 1) &&
      line[first - 1]!.onset >= change.at - 2 - E &&
      line[first - 1]!.onset + tol >= presentStart - E &&
      inScale(walk[change.place]!, line[first - 1]!.pc)
    )
      first--;
    const run = Array.from({ length: landing.place - first }, (_, index) => first + index);
    const presentPlace = walk[change.place - 1]!;
    const foreign = run.filter(
      (place) =>
        !inScale(presentPlace, line[place]!.pc) &&
        !(isBluesy(presentPlace) && home(presentPlace).pcs.includes(line[place]!.pc)),
    ).length;
    if (run.length > 0 && foreign * 2 >= run.length)
      for (const place of run) {
        belongs[place] = change.place;
        leadIns[place] = true;
      }
  }
  const at = (place: number) => walk[belongs[place]!]!;
  const isTone = (place: number) => base(at(place), line[place]!.pc) === 'chord';
  const isTarget = (place: number) =>
    cellAt(plan, at(place).at, at(place).chorus).targets.includes(line[place]!.pc);
  const read = line.map(({ pitch }, place) => {
    const neighbours = [line[place - 1], line[place + 1]];
    if (!linked(place - 1) || !linked(place)) return pitch;
    for (const put of [pitch - 12, pitch + 12]) {
      const isAway = neighbours.every((other) => {
        const off = (pitch - other!.pitch) * Math.sign(pitch - put);
        return off >= 9 && off <= 15;
      });
      if (isAway && neighbours.every((other) => Math.abs(put - other!.pitch) <= 4)) return put;
    }
    return pitch;
  });
  const step = (from: number, to: number) => read[to]! - read[from]!;
  const joined = (place: number) => linked(place, 0.5);

  // sequences: a cell of 2–4 notes stated at least three times, moved each time by one step of the chord-scale, key or home scale
  const inSequence = line.map(() => false);
  const scaleStep = (scale: Scale, from: number, to: number): number | null => {
    const all = Array.from({ length: 128 }, (_, pitch) => pitch).filter((pitch) =>
      scale.pcs.includes(pitch % 12),
    );
    const [a, b] = [all.indexOf(from), all.indexOf(to)];
    return a < 0 || b < 0 ? null : b - a;
  };
  for (let first = 0; first < line.length; first++)
    for (const size of [2, 3, 4])
      for (const scale of [bare(at(first)), keyScale(first), home(at(first))])
        for (const way of [1, -1]) {
          let statements = 1;
          for (;;) {
            const start = first + statements * size;
            const whole =
              start + size <= line.length &&
              Array.from({ length: size }, (_, index) => index).every(
                (index) =>
                  linked(start + index - 1) &&
                  scaleStep(scale, line[start + index - size]!.pitch, line[start + index]!.pitch) === way,
              );
            if (!whole) break;
            statements++;
          }
          const cellLinked = Array.from({ length: size - 1 }, (_, index) => index).every((index) =>
            linked(first + index),
          );
          if (statements >= 3 && cellLinked)
            for (let place = first; place < first + statements * size; place++) inSequence[place] = true;
        }
  function keyScale(place: number): Scale {
    const own = reading(at(place));
    return own ? scaleOn(own.key.tonic, own.key.minor ? 'natural minor' : 'major') : home(at(place));
  }

  // T7.9: a cell of at least three notes said twice elsewhere, or of two notes three times; only short ones matter here
  const inCell = line.map(() => false);
  for (let first = 0; first + 5 < line.length; first++) {
    let best = { last: -1, size: 0 };
    for (let size = 2; size <= 8; size++) {
      const offset = line[first + size] ? line[first + size]!.pitch - line[first]!.pitch : 0;
      let whole = 0;
      while (
        first + whole + size < line.length &&
        linked(first + whole + size - 1) &&
        line[first + whole + size]!.pitch - line[first + whole]!.pitch === offset
      )
        whole++;
      const isLinkedCell = Array.from({ length: size - 1 }, (_, index) => index).every((index) =>
        linked(first + index),
      );
      const statements = Math.floor(whole / size) + 1;
      const last = first + statements * size - 1;
      if (isLinkedCell && offset !== 0 && statements >= (size === 2 ? 3 : 2) && last > best.last)
        best = { last, size };
    }
    if (best.last < 0) continue;
    if (best.size <= 4) for (let place = first; place <= best.last; place++) inCell[place] = true;
    first = best.last;
  }
  const isKept = (place: number) => !inSequence[place] && !inCell[place];

  // T7.8 and T7.14: linked notes in skips over one chord that spell a chord, in stacked thirds where it is more than a seventh
  const spellings = [
    '0 4 7',
    '0 3 7',
    '0 3 6',
    '0 4 8',
    '0 4 7 11',
    '0 4 7 10',
    '0 3 7 10',
    '0 3 6 10',
    '0 3 6 9',
    '0 3 7 11',
    '0 4 8 11',
    '0 2 4 7 11',
    '0 2 4 7 10',
    '0 2 3 7 10',
    '0 1 4 7 10',
    '0 3 4 7 10',
    '0 2 4 6 7 10',
    '0 2 4 5 7 10',
    '0 2 3 5 7 10',
    '0 2 4 6 7 11',
    '0 2 4 7 9 11',
    '0 2 4 7 9 10',
    '0 2 3 7 9 10',
  ].map((steps) => steps.split(' ').map(Number));
  const spells = (pcs: readonly number[]) => {
    const all = [...new Set(pcs)];
    return spellings.flatMap((steps) =>
      Array.from({ length: 12 }, (_, root) => steps.map((one) => (one + root) % 12)).filter((tones) =>
        all.every((pc) => tones.includes(pc)),
      ),
    );
  };
  const arpeggios: [number, number][] = [];
  for (let first = 0; first < line.length - 2;) {
    let end = first;
    for (let last = first + 1; linked(last - 1) && Math.abs(step(last - 1, last)) >= 3; last++) {
      if (at(last).chord?.symbol !== at(first).chord?.symbol) break;
      const pcs = line.slice(first, last + 1).map(({ pc }) => pc);
      const all = spells(pcs);
      if (all.length === 0) break;
      const whole = all.find((tones) => tones.length === new Set(pcs).size);
      const isStacked = Array.from({ length: last - first }, (_, index) => first + index).every((place) =>
        [0, 3, 4].includes(Math.abs(step(place, place + 1)) % 12),
      );
      if (whole && last - first >= 2 && (whole.length <= 4 || isStacked)) end = last;
    }
    if (end > first) arpeggios.push([first, end]);
    first = end > first ? end : first + 1;
  }

  // figures
  type Figure = { kind: string; members: number[]; target: number };
  const figures: Figure[] = [];
  line.forEach((_, target) => {
    const [a, b] = [target - 2, target - 1];
    if (a < 0 || !joined(a) || !joined(b) || !isKept(a) || !isKept(b)) return;
    const beat = onBeat(line[target]!.onset);
    if (!isTone(target) && !(beat && base(at(target), line[target]!.pc) === 'colour')) return;
    const [da, db] = [-step(a, target), -step(b, target)];
    if (da * db >= 0 || Math.abs(da) > 2 || Math.abs(db) > 2) return;
    const own = at(target).chord;
    const tones = [a, b].filter((place) => own !== null && hasTone(own, line[place]!.pc)).length;
    if (tones === 2 || (!beat && tones > 0)) return;
    if (isTone(a) && isTone(b)) return;
    const isOfArpeggio = arpeggios.some(([first, last]) => first < a && last >= b);
    if (isOfArpeggio && step(a - 1, a) * step(a, b) > 0) return;
    const members = [a, b];
    while (members.length < 4) {
      const next = members[0]! - 1;
      if (next < 0 || !joined(next) || !isKept(next) || isTone(next)) break;
      const [away, after] = [-step(next, target), -step(members[0]!, target)];
      const otherSide = away * after < 0;
      const farther = Math.abs(away) - Math.abs(after);
      if (away === 0 || Math.abs(away) > 3 || !(otherSide || (farther >= 1 && farther <= 2))) break;
      members.unshift(next);
    }
    figures.push({ kind: 'enclosure', members, target });
  });
  line.forEach((_, target) => {
    if (!isTone(target) || target < 2) return;
    const way = step(target - 1, target);
    if (Math.abs(way) !== 1) return;
    const members: number[] = [];
    for (
      let place = target - 1;
      place >= 0 && joined(place) && step(place, place + 1) === way && !isTone(place);
      place--
    )
      members.unshift(place);
    if (members.length >= 2) figures.push({ kind: 'double-chromatic', members, target });
  });
  const wide = [...figures];
  const memberOf = (place: number, kind: string) =>
    wide.find((figure) => figure.kind === kind && figure.members.includes(place));
  const suspended = (place: number) => {
    if (!isTone(place) || !joined(place) || place + 1 >= line.length || !isTone(place + 1)) return null;
    const note = line[place]!;
    const next = changes.find((change) => change.at > note.onset + tol - E && change.place > belongs[place]!);
    if (!next || hasTone(next.to, note.pc) || note.end - next.at < Math.max(0.25, ms(150)) - E) return null;
    const move = step(place, place + 1);
    if (Math.abs(move) === 1 || Math.abs(move) === 2) {
      if (move < 0) return 'suspension';
      return 'retardation';
    }
    return null;
  };
  const leads = (place: number, most: number) =>
    joined(place) &&
    isTone(place + 1) &&
    Math.abs(step(place, place + 1)) >= 1 &&
    Math.abs(step(place, place + 1)) <= most;

  line.forEach((note, place) => {
    const here = at(place);
    const own = base(here, note.pc);
    note.chord = here.chord?.symbol ?? null;
    const set = (name: string, tier: string, target?: number) => {
      note.function = name;
      note.tier = tier;
      if (target !== undefined) note.target = target;
    };
    const toward = () => (step(place, place + 1) > 0 ? 'approach-below' : 'approach-above');
    const led = own === 'outside' ? 'approach' : own;
    if (own === 'chord') {
      const held = suspended(place);
      const member = memberOf(place, 'enclosure');
      if (held) {
        set(held, 'chord', place + 1);
        figures.push({ kind: held, members: [place], target: place + 1 });
      } else {
        const plain = isTarget(place) ? 'target' : 'chord-tone';
        set(anticipates[place] ? 'anticipation' : plain, 'chord', member?.target);
      }
      return;
    }
    const member = memberOf(place, 'enclosure') ?? memberOf(place, 'double-chromatic');
    if (member) return set(member.kind, led, member.target);
    const under = line[place + 1] ? at(place + 1).chord : null;
    const isNeighbour =
      place > 0 &&
      joined(place - 1) &&
      joined(place) &&
      place + 1 < line.length &&
      step(place - 1, place + 1) === 0 &&
      [1, 2].includes(Math.abs(step(place, place + 1)));
    // T7.11: an accented 4–3 or 7–1
    if (onBeat(note.onset) && leads(place, 2) && under && !isNeighbour) {
      const above = semitonesAboveRoot(under, note.pc);
      const toThird = toneByRole(under, 'third')?.pc === line[place + 1]!.pc && step(place, place + 1) < 0;
      if ((above === 5 && toThird) || (above === 11 && step(place, place + 1) === 1)) {
        set(toward(), led, place + 1);
        figures.push({ kind: note.function, members: [place], target: place + 1 });
        return;
      }
    }
    const isByStep = place > 0 && joined(place - 1) && Math.abs(step(place - 1, place)) <= 2;
    const isBetween =
      isByStep &&
      step(place - 1, place) === step(place, place + 1) &&
      inScale(at(place - 1), line[place - 1]!.pc) &&
      inScale(at(place + 1), line[place + 1]!.pc);
    const isUpbeat = line[place + 1] !== undefined && !onBeat(note.onset) && onBeat(line[place + 1]!.onset);
    if (!inScale(here, note.pc) && leads(place, 1) && (!isByStep || (!isBetween && isUpbeat))) {
      set(toward(), led, place + 1);
      figures.push({ kind: note.function, members: [place], target: place + 1 });
      return;
    }
    const both = place > 0 && joined(place - 1) && joined(place);
    const near = (other: number) => {
      const distance = Math.abs(step(place, other));
      return (
        distance >= 1 &&
        (distance <= 2 || (distance === 3 && isAdjacentIn(home(here), note.pc, line[other]!.pc)))
      );
    };
    if (both && step(place - 1, place) * step(place, place + 1) > 0 && near(place - 1) && near(place + 1)) {
      const tight = Math.abs(step(place - 1, place)) === 1 && Math.abs(step(place, place + 1)) === 1;
      return set('passing', own === 'outside' && tight ? 'approach' : own);
    }
    if (
      both &&
      step(place - 1, place + 1) === 0 &&
      Math.abs(step(place, place + 1)) <= 2 &&
      step(place, place + 1) !== 0
    )
      return set('neighbour', led);
    if (leads(place, 2)) {
      set(toward(), led, place + 1);
      figures.push({ kind: note.function, members: [place], target: place + 1 });
      return;
    }
    return set(own, own);
  });

  // T7.12: ♭3 into 3 of one chord within a beat is a figure of its own; by a grace note too
  line.forEach((note, place) => {
    const next = line[place + 1];
    if (!next || !joined(place) || step(place, place + 1) !== 1 || at(place).chord !== at(place + 1).chord)
      return;
    const third = at(place).chord && toneByRole(at(place).chord!, 'third');
    if (!third || third.semitones !== 4 || next.pc !== third.pc || next.onset - note.onset > 1 + E) return;
    if (wide.some(({ members }) => members.includes(place))) return;
    const known = figures.findIndex(
      ({ kind, members }) => members.length === 1 && members[0] === place && kind.startsWith('approach'),
    );
    const own = { kind: 'minor-to-major-third', members: [place], target: place + 1 };
    if (known >= 0) figures[known] = own;
    else figures.push(own);
  });
  const graced = notes.filter((note) => {
    if (note.from === undefined || note.grace) return false;
    const { chord } = line[note.event] ? at(note.event) : { chord: null };
    const third = chord && toneByRole(chord, 'third');
    return (
      third !== null &&
      third?.semitones === 4 &&
      note.pc === third.pc &&
      notes[note.from]!.pc === modulo(third.pc - 1, 12)
    );
  });

  const HEIGHTS: Record<string, number> = { chord: 0, colour: 1, scale: 2, approach: 3, outside: 4 };
  const isBlue = (place: Place, pc: number) => {
    const own = reading(place);
    if (!own || !isBluesForm) return false;
    const over = modulo(pc - modulo(harmonyTonic(place), 12), 12);
    return (
      [3, 6, 10].includes(over) &&
      !hasTone(own.chord, pc) &&
      own.chord.tones.some(
        (tone) => ['third', 'fifth', 'seventh'].includes(tone.role) && tone.pc === modulo(pc + 1, 12),
      )
    );
  };
  function harmonyTonic(place: Place): number {
    return pitchClass(reading(place)!.key.tonic);
  }
  const placeOfVoice = (note: ReadNote): Place =>
    line[note.event] ? at(note.event) : walk[soundingIndex(note.onset + tol)]!;
  for (const note of notes) {
    const here = placeOfVoice(note);
    note.chord = here.chord?.symbol ?? null;
    note.interval = here.chord ? intervalOver(here.chord, note.pc) : null;
    const own = base(here, note.pc);
    if (note.grace) {
      note.function = 'grace';
      note.tier = own === 'outside' ? 'approach' : own;
    } else if (!note.top) {
      const isAim = cellAt(plan, here.at, here.chorus).targets.includes(note.pc);
      const plain = isAim ? 'target' : 'chord-tone';
      note.function = own === 'chord' ? plain : own;
      note.tier = own;
    }
    if (isBlue(here, note.pc)) {
      note.flags.push('blue');
      if (HEIGHTS[note.tier]! > 2) note.tier = 'scale';
    }
    // a figure's approach stays one; what leads nowhere is tension of the dominant
    if (note.tier === 'outside' && isAlteration(here, note.pc) && !minorGoal(here)) {
      note.tier = 'scale';
      note.flags.push('altered');
      if (note.function === 'outside') note.function = 'scale';
    }
    note.height = HEIGHTS[note.tier]!;
  }

  // landings
  const rank = (change: Change, note: ReadNote) => {
    const place = walk[change.place]!;
    if (cellAt(plan, place.at, place.chorus).targets.includes(note.pc)) return 'target';
    const own = base(place, note.pc);
    if (own === 'outside' && isAlteration(place, note.pc)) return 'scale';
    return own === 'chord' ? 'chord-tone' : own;
  };
  const ORDER = ['target', 'chord-tone', 'colour', 'scale', 'outside'];
  const bestVoice = (change: Change, voices: readonly ReadNote[]) =>
    [...voices].sort(
      (a, b) => ORDER.indexOf(rank(change, a)) - ORDER.indexOf(rank(change, b)) || b.pitch - a.pitch,
    )[0]!;
  const targetNear = (change: Change, pitch: number): number | null => {
    const place = walk[change.place]!;
    const { targets } = cellAt(plan, place.at, place.chorus);
    for (let distance = 0; distance < 12; distance++)
      for (const way of [distance, -distance]) if (targets.includes(modulo(pitch + way, 12))) return way;
    return null;
  };
  const landings = changes.map((change) => {
    const voicesAt = (place: number) => bestVoice(change, events[place]!);
    let found: { place: number; note: ReadNote; timing: string } | null = null;
    const there = onAt(change);
    if (there) found = { place: there.place, note: voicesAt(there.place), timing: 'on' };
    if (!found) {
      const early = line.findLastIndex(
        (note, place) =>
          inReach(note, change.at) &&
          ((anticipates[place] && belongs[place] === change.place) ||
            (hasTone(change.from, note.pc) && hasTone(change.to, note.pc) && alone(place, change.at))),
      );
      if (early >= 0) found = { place: early, note: voicesAt(early), timing: 'early' };
    }
    if (!found) {
      const late = change.at + Math.min(0.5, (change.until - change.at) / 2);
      const held = events.findLastIndex((voices) =>
        voices.some((note) => note.onset < change.at - E && note.end >= late - E),
      );
      if (held >= 0)
        found = {
          place: held,
          note: bestVoice(
            change,
            events[held]!.filter((note) => note.end >= late - E),
          ),
          timing: 'held',
        };
    }
    if (!found) {
      const late = line.findIndex(
        (note) =>
          note.onset > change.at && note.onset <= change.at + 1 + E && note.onset < change.until - on - E,
      );
      if (late >= 0) found = { place: late, note: voicesAt(late), timing: 'late' };
    }
    if (!found) {
      const sounds = notes.some(
        (note) => !note.grace && note.onset < change.at + 1 && note.end > change.at - 1,
      );
      return {
        beat: change.at,
        note: null,
        timing: 'none',
        verdict: 'none',
        rest: !sounds,
        connection: null,
        fix: null,
      };
    }
    let verdict = rank(change, found.note);
    let resolution: number | undefined;
    const settled = figures.find(
      ({ kind, members, target }) =>
        !['suspension', 'retardation'].includes(kind) &&
        members.includes(found!.place) &&
        line[target]!.onset - Math.max(line[found!.place]!.onset, change.at) <= 1 + E &&
        line[target]!.onset < change.until - E &&
        hasTone(change.to, line[target]!.pc),
    );
    if (!hasTone(change.to, found.note.pc) && verdict !== 'target' && settled) {
      resolution = settled.target;
      verdict = rank(change, line[settled.target]!);
    } else if (!hasTone(change.to, found.note.pc) && verdict !== 'target') {
      for (let place = found.place + 1; place <= found.place + 4 && linked(place - 1); place++) {
        const note = line[place]!;
        if (note.onset >= change.until - E || note.onset - change.at > 2 * barAt(change.at).beats + E) break;
        if (!hasTone(change.to, note.pc)) continue;
        if (Math.abs(step(place - 1, place)) <= 2) resolution = place;
        break;
      }
    }
    const before = line[found.place - 1];
    let moved: number | null;
    if (found.timing === 'held') moved = 0;
    else if (before) moved = found.note.pitch - before.pitch;
    else moved = null;
    const fresh = found.timing !== 'held' && (!before || line[found.place]!.onset - before.end > 1 + E);
    let kind: 'fresh' | 'common' | 'step' | 'skip' | 'leap';
    if (fresh) kind = 'fresh';
    else if (moved === 0) kind = 'common';
    else if (Math.abs(moved!) <= 2) kind = 'step';
    else if (Math.abs(moved!) <= 4) kind = 'skip';
    else kind = 'leap';
    const origin = found.timing === 'held' ? line[found.place]! : before;
    const nearest = origin ? targetNear(change, origin.pitch) : null;
    const place = walk[change.place]!;
    const metLate =
      resolution !== undefined && cellAt(plan, place.at, place.chorus).targets.includes(line[resolution]!.pc);
    const isSoon = resolution !== undefined && line[resolution]!.onset - change.at <= 1 + E;
    const fix =
      verdict !== 'target' &&
      !metLate &&
      !isSoon &&
      nearest !== null &&
      Math.abs(nearest) <= 4 &&
      origin!.pitch + nearest >= 40 &&
      origin!.pitch + nearest <= 86
        ? origin!.pitch + nearest
        : null;
    return {
      beat: change.at,
      note: idx(found.note),
      timing: found.timing,
      verdict,
      rest: false,
      connection: kind,
      fix,
      ...(resolution === undefined ? {} : { resolution: idx(line[resolution]!) }),
    };
  });

  // phrases
  const gaps = line
    .slice(1)
    .map(
      (_, index) =>
        Math.min(...events[index + 1]!.map((one) => one.onset)) -
        Math.min(...events[index]!.map((one) => one.onset)),
    );
  const short2 = gaps.filter((gap) => gap <= 2 + E);
  const counted = [...(short2.length < 3 ? gaps : short2)].sort((a, b) => a - b);
  const pulse = middle(counted) ?? 1;
  const quarter = (counted.length - 1) / 4;
  const quick =
    counted.length === 0
      ? 1
      : counted[Math.floor(quarter)]! +
        (quarter % 1) * (counted[Math.ceil(quarter)]! - counted[Math.floor(quarter)]!);
  const starts: number[] = [];
  let sounded = -Infinity;
  events.forEach((voices, place) => {
    const onset = Math.min(...voices.map((note) => note.onset));
    const before = events[place - 1];
    const length = before
      ? Math.max(...before.map((note) => note.end)) - Math.min(...before.map((note) => note.onset))
      : 0;
    const rest = Math.max(0.75, ms(300), Math.min(1.6 * quick, 0.75 * barAt(onset).beats));
    if (!before || onset - sounded >= rest - E || (length >= 2 - E && length >= 3 * pulse - E))
      starts.push(place);
    sounded = Math.max(sounded, ...voices.map((note) => note.end));
  });
  const phrases = starts.map((first, index) => {
    const last = (starts[index + 1] ?? events.length) - 1;
    const inside = events.slice(first, last + 1).flat();
    const start = Math.min(...inside.map((note) => note.onset));
    const end = Math.max(...inside.map((note) => note.end));
    const bar = barAt(start);
    let toNext: number;
    if (start < 0) toNext = Math.ceil(start / bar.beats - E) * bar.beats - start;
    else if (start - bar.start < on) toNext = 0;
    else toNext = bar.start + bar.beats - start;
    return {
      start,
      end,
      first,
      last,
      ending: ending(last),
      crossed: changes.filter((change) => change.at > start + E && change.at < end - E).length,
      pickup: toNext > on + E && toNext <= 2 + E ? toNext : 0,
    };
  });
  function ending(place: number): string {
    const note = line[place]!;
    const { chord } = at(place);
    if (!chord) return 'asks';
    const place2 = at(place);
    const is = (...roles: ('root' | 'third' | 'fifth' | 'sixth')[]) =>
      roles.some((role) => toneByRole(chord, role)?.pc === note.pc);
    const { degree } = reading(place2)!;
    const restful = is('root', 'third', 'fifth');
    if (['I', 'i'].includes(degree) && (restful || is('sixth'))) return 'home';
    if (isBluesy(place2) && degree === 'IV' && note.pc === tonicOf(place2)) return 'home';
    if (isOnItsWay(place2)) return is('root') ? 'floats' : 'asks';
    if (restful) return 'home';
    const own = base(place2, note.pc);
    if (own === 'chord') return 'floats';
    if (note.pc === modulo(tonicOf(place2) - 1, 12)) return 'asks';
    return own === 'colour' ? 'floats' : 'asks';
  }
  // T8.9: a phrase that states a theme again asks for no other note
  const shapes = phrases.map(({ first, last }) => line.slice(first, last + 1));
  const isSameTheme = (a: readonly ReadNote[], b: readonly ReadNote[]) => {
    if (a.length !== b.length || a.length < FEWEST_IN_THEME) return false;
    const moves = (notes2: readonly ReadNote[]) =>
      notes2.slice(1).map((one, index) => one.pitch - notes2[index]!.pitch);
    const times = (notes2: readonly ReadNote[]) =>
      notes2.slice(1).map((one, index) => one.onset - notes2[index]!.onset);
    const [ma, mb, ta, tb] = [moves(a), moves(b), times(a), times(b)];
    const away = a.filter((one, index) => one.pitch - a[0]!.pitch !== b[index]!.pitch - b[0]!.pitch).length;
    return (
      ta.every((gap, index) => isSameTime(gap, tb[index]!)) &&
      ma.every((move, index) => Math.sign(move) === Math.sign(mb[index]!)) &&
      away <= 2
    );
  };
  const themes: { first: number; all: Set<number> }[] = [];
  shapes.forEach((shape, index) => {
    if (themes.some(({ all }) => all.has(index))) return;
    const like = shapes.flatMap((other, place) =>
      place > index && !themes.some(({ all }) => all.has(place)) && isSameTheme(shape, other) ? [place] : [],
    );
    if (like.length > 0) themes.push({ first: index, all: new Set([index, ...like]) });
  });
  const restated = new Set(
    themes.flatMap(({ first, all }) =>
      [...all]
        .filter((place) => place !== first)
        .flatMap((place) =>
          events
            .slice(phrases[place]!.first, phrases[place]!.last + 1)
            .flat()
            .map(idx),
        ),
    ),
  );
  for (const landing of landings) if (landing.note !== null && restated.has(landing.note)) landing.fix = null;

  // flags that need figures, landings and phrases
  const landedPlaces = landings
    .filter(({ timing }) => timing === 'on')
    .map(({ note }) => notes[note!]!.event);
  line.forEach((note, place) => {
    const mine = figures.filter((figure) => figure.members.includes(place));
    const opensBar = (target: number) => {
      const phrase = phrases.find((one) => target >= one.first && target <= one.last)!;
      const bar = barAt(phrase.start);
      let full: number;
      if (phrase.start < on) full = Math.min(0, Math.ceil(phrase.start / bar.beats - E) * bar.beats);
      else if (phrase.start - bar.start <= on + E) full = bar.start;
      else full = bar.start + bar.beats;
      return Math.abs(line[target]!.onset - full) <= on + E;
    };
    if (mine.some(({ target }) => landedPlaces.includes(target) || opensBar(target)))
      note.flags.push('pickup');
    if (leadIns[place]) note.flags.push('lead-in');
    const next = line[place + 1];
    if (
      mine.length > 0 ||
      (note.tier !== 'chord' &&
        next &&
        linked(place) &&
        isTone(place + 1) &&
        Math.abs(step(place, place + 1)) <= 2)
    )
      note.flags.push('resolved');
    // T6.4: an unresolved accent a semitone above the third of a secondary or borrowed chord
    const here = at(place);
    const third = here.chord && toneByRole(here.chord, 'third');
    if (
      third &&
      isNotOfKey(here) &&
      note.pc === modulo(third.pc + 1, 12) &&
      !hasTone(here.chord!, note.pc) &&
      onBeat(note.onset) &&
      note.end - note.onset >= 0.5 - E &&
      !note.flags.includes('resolved') &&
      !note.flags.includes('blue')
    ) {
      note.tier = 'outside';
      note.function = 'outside';
      note.height = 4;
    }
  });

  // coverage: count where it belongs, time where it sounds
  const entries: (Read['coverage'][number] & { key: string; at: number })[] = [];
  const keyOf = (index: number) =>
    `${harmony.readings[index]!.chord.symbol} over ${harmony.readings[index]!.scale.name}`;
  harmony.readings.forEach((own, index) => {
    if (own && !entries.some(({ key }) => key === keyOf(index)))
      entries.push({
        key: keyOf(index),
        at: index,
        chord: own.chord.symbol,
        count: 0,
        byInterval: {},
        missing: [],
      });
  });
  for (const note of notes) {
    if (note.grace) continue;
    const own = line[note.event] ? belongs[note.event]! : soundingIndex(note.onset + tol);
    const add = (index: number, beats: number, counts: boolean) => {
      const place = walk[index]!;
      if (!place.chord) return;
      const entry = entries.find(({ key }) => key === keyOf(place.at))!;
      const cell = (entry.byInterval[intervalOver(place.chord, note.pc)] ??= {
        count: 0,
        beats: 0,
        strong: 0,
      });
      cell.beats += beats;
      if (counts) {
        entry.count++;
        cell.count++;
        if (strong(note.onset)) cell.strong++;
      }
    };
    const end = Math.min(note.end, until);
    let [index, from] = [own, note.onset];
    for (;;) {
      let next = index + 1;
      while (
        walk[next] &&
        walk[next]!.start < end - E &&
        walk[next]!.chord &&
        walk[index]!.chord &&
        !isChange(walk[next - 1]!.chord!, walk[next]!.chord!)
      )
        next++;
      const to = walk[next] && walk[next]!.start < end - E ? walk[next]!.start : end;
      add(index, Math.max(0, to - from), index === own);
      if (to >= end - E) break;
      [index, from] = [next, to];
    }
  }
  for (const entry of entries) {
    const { chord } = harmony.readings[entry.at]!;
    entry.missing = [
      ...new Set(
        cellAt(plan, entry.at, 0)
          .material.filter((pc) => entry.byInterval[intervalOver(chord, pc)] === undefined)
          .map((pc) => intervalOver(chord, pc)),
      ),
    ];
  }

  // the muted band
  type Candidate = {
    symbol: string;
    root: number;
    tones: Map<number, number>;
    scale: Set<number>;
    partnerOf: string[];
    relative?: true;
  };
  const tonesOf = (chord: Chord) => {
    const gains = new Map<number, number>();
    for (const tone of chord.tones) {
      let gain: 1 | 0.8 | 0.6 | 0.5 | 0;
      if (tone.role === 'third' || tone.role === 'sus') gain = 1;
      else if (tone.role === 'seventh' || tone.role === 'sixth') gain = 0.8;
      else if (tone.role === 'root') gain = 0.6;
      else if (tone.role === 'fifth') {
        if (tone.semitones === 7) gain = 0.5;
        else gain = 0.8;
      } else gain = 0;
      gains.set(tone.pc, gain);
    }
    return gains;
  };
  const candidates: Candidate[] = [];
  const addCandidate = (one: Candidate) => {
    const same = candidates.find(
      (other) =>
        other.root === one.root &&
        [...other.tones.keys()].sort().join() === [...one.tones.keys()].sort().join(),
    );
    if (same) same.partnerOf.push(...one.partnerOf);
    else candidates.push(one);
  };
  const scaleSet = (index: number) =>
    new Set(
      Array.from({ length: 12 }, (_, pc) => pc).filter((pc) =>
        inScale({ at: index, chorus: 0, start: 0, end: 0, chord: form.chordSpans[index]!.chord }, pc),
      ),
    );
  const chords = harmony.readings.flatMap((own, index) => (own ? [{ chord: own.chord, index }] : []));
  const from = (root: number, steps: readonly number[], gains: readonly number[]) =>
    new Map(steps.map((semis, index) => [modulo(root + semis, 12), gains[index]!]));
  for (const { chord, index } of chords)
    addCandidate({
      symbol: chord.symbol,
      root: rootPc(chord),
      tones: tonesOf(chord),
      scale: scaleSet(index),
      partnerOf: [],
    });
  for (const { chord, index } of chords) {
    const root = rootPc(chord);
    const [third, seventh] = [toneByRole(chord, 'third')?.semitones, toneByRole(chord, 'seventh')?.semitones];
    if (third === 4 && seventh === 10) {
      addCandidate({
        symbol: `tritone ${root}`,
        root: modulo(root + 6, 12),
        tones: from(root + 6, [0, 4, 7, 10], [0.6, 1, 0.5, 0.8]),
        scale: new Set([0, 2, 4, 6, 7, 9, 10].map((step7) => modulo(root + 6 + step7, 12))),
        partnerOf: [chord.symbol],
      });
    }
    if (third === 4 && seventh === 11 && toneByRole(chord, 'fifth')?.semitones === 7)
      addCandidate({
        symbol: `relative ${root}`,
        root: modulo(root + 9, 12),
        tones: from(root + 9, [0, 3, 7, 10], [0.6, 1, 0.5, 0.8]),
        scale: scaleSet(index),
        partnerOf: [],
        relative: true,
      });
    if (third === 3 && seventh === 10 && toneByRole(chord, 'fifth')?.semitones === 7)
      addCandidate({
        symbol: `relative ${root}`,
        root: modulo(root + 3, 12),
        tones: from(root + 3, [0, 4, 7, 11], [0.6, 1, 0.5, 0.8]),
        scale: scaleSet(index),
        partnerOf: [],
        relative: true,
      });
  }
  const muted: Read['muted'] = [];
  for (let index = 0; index < walk.length; index++) {
    const place = walk[index]!;
    if (!place.chord || place.chorus >= choruses) continue;
    const before = walk[index - 1];
    if (before && before.chorus === place.chorus && before.chord?.symbol === place.chord.symbol) continue;
    let last = index;
    while (
      walk[last + 1] &&
      walk[last + 1]!.chorus === place.chorus &&
      walk[last + 1]!.chord?.symbol === place.chord.symbol
    )
      last++;
    const [start, end] = [place.start, walk[last]!.end];
    const landed = landings.find(({ beat }) => Math.abs(beat - start) < E)?.note ?? null;
    const weights: { pc: number; weight: number }[] = [];
    for (const note of notes) {
      const own = line[note.event] ? belongs[note.event]! : soundingIndex(note.onset + tol);
      const inside = Math.min(note.end, end) - Math.max(note.onset, start);
      if (note.grace || note.flags.includes('blue') || inside <= E || own > last) continue;
      if (
        note.tier !== 'chord' &&
        (['passing', 'neighbour'].includes(note.function) || note.target !== undefined)
      )
        continue;
      let factor: 1 | 1.5 | 0.6;
      if (landed === idx(note)) factor = 1.5;
      else if (own < index) factor = 0.6;
      else factor = 1;
      weights.push({ pc: note.pc, weight: Math.min(inside, 1) * (onBeat(note.onset) ? 1 : 0.6) * factor });
    }
    const total = weights.reduce((sum, { weight }) => sum + weight, 0);
    const gain = (tones: Map<number, number>, scale: Set<number>) =>
      total > 0
        ? weights.reduce(
            (sum, { pc, weight }) => sum + weight * (tones.get(pc) ?? (scale.has(pc) ? 0 : -0.5)),
            0,
          ) / total
        : 0;
    const truth = tonesOf(place.chord);
    const others = candidates.filter(
      (one) =>
        !(one.root === rootPc(place.chord!) && one.symbol === place.chord!.symbol) &&
        [...one.tones.keys()].filter((pc) => truth.has(pc)).length < 3 &&
        !one.partnerOf.includes(place.chord!.symbol) &&
        !one.relative,
    );
    const best = others.length ? Math.max(...others.map((one) => gain(one.tones, one.scale))) : 0;
    const margin = gain(truth, scaleSet(place.at)) - best;
    let verdict = 'not-heard';
    if (margin >= -0.05 - E) verdict = 'unclear';
    const telling = place.chord.tones.filter(
      ({ role, pc }) =>
        ['third', 'sus', 'seventh', 'sixth'].includes(role) ||
        !home(place).pcs.includes(pc) ||
        place.chord!.tones.length < 3,
    );
    const isTold = weights.some(({ pc, weight }) => weight > 0 && telling.some((tone) => tone.pc === pc));
    if (margin >= 0.05 - E) verdict = isTold ? 'heard' : 'unclear';
    if (total < 0.5 - E) verdict = 'silent';
    muted.push({ beat: start, chord: place.chord.symbol, verdict });
  }
  return {
    notes,
    landings,
    muted,
    coverage: entries.map(({ chord, count, byInterval, missing }) => ({ chord, count, byInterval, missing })),
    figures: [
      ...figures.map(
        ({ kind, members, target }) =>
          `${kind} ${members.map((place) => idx(line[place]!)).join(' ')} → ${idx(line[target]!)}`,
      ),
      ...graced.map((note) => `minor-to-major-third ${note.from} → ${idx(note)}`),
    ],
    phrases: phrases.map(({ start, end, ending: ends, crossed, pickup }) => ({
      start,
      end,
      ending: ends,
      crossed,
      pickup,
    })),
  };
}

/** T10.3: fewer notes are no idea. */
const FEWEST_IN_THEME = 3;
const isSameTime = (a: number, b: number): boolean => Math.abs(a - b) <= 0.13;

const middle = (values: readonly number[]): number | null => {
  const sorted = [...values].sort((a, b) => a - b);
  if (sorted.length === 0) return null;
  return sorted.length % 2
    ? sorted[(sorted.length - 1) / 2]!
    : (sorted[sorted.length / 2 - 1]! + sorted[sorted.length / 2]!) / 2;
};
