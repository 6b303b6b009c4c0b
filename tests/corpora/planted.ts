import { improvise, type StandInProfile } from '@/core/band';
import {
  changesOf,
  harmonyOf,
  LIBRARY,
  readChart,
  soundingAt,
  timelineOf,
  type Chart,
  type Timeline,
} from '@/core/chart';
import type { PlayedNote } from '@/core/analyse';
import { readChord } from '@/core/music';
import type { PlanId } from '@/core/plan';
import { unwrap, modulo, seededRandom, type Random } from '@/core/shared';

/** A player with one weakness: what the first finding must be called. */
export type Planted = { readonly kind: string; readonly notes: (seed: number) => PlayedNote[] };

/** The chord whose change is missed, one whose tell-tale tone is left out, one of whose tones is never played. */
export type Weak = {
  readonly into: string;
  readonly ignored: { readonly chord: string; readonly pc: number };
  readonly never: { readonly chord: string; readonly pc: number };
};

/** Players over a form of the library: one with nothing in particular to fix, and one for each weakness. */
export function playersOn(id: string, tempo: number, choruses: number, weak: Weak) {
  const chart: Chart = unwrap(readChart(LIBRARY.find((form) => form.id === id)!.text));
  const LINE: Timeline = timelineOf(chart, tempo);
  const CHANGES = changesOf(LINE, choruses);
  const HARMONY = harmonyOf(chart, LINE);

  /** A player with nothing in particular to fix. */
  const GOOD: Partial<StandInProfile> = {
    meet: 0.92,
    early: 0.05,
    late: 0.03,
    approach: 0.4,
    outside: 0.03,
    spreadMs: 10,
    density: 0.92,
    breathe: 0.35,
  };

  const play = (
    seed: number,
    profile: Partial<StandInProfile> = {},
    id: PlanId = 'scale-per-chord',
  ): PlayedNote[] =>
    improvise({ chart, tempo, choruses, plan: { id }, seed, profile: { ...GOOD, ...profile } });

  const goodPlayer = (seed: number): PlayedNote[] => play(seed);
  /** The same over the whole neck: no one place holds it. */
  const widePlayer = (seed: number): PlayedNote[] => play(seed, { lowest: 42, highest: 82 });

  /** The pitch of a pitch class nearest to another. */
  const near = (to: number, pc: number): number => to + modulo(pc - to + 6, 12) - 6;

  /** Each landing (the note nearest a change, within a quarter beat) given to `turn`. */
  function atLandings(
    notes: readonly PlayedNote[],
    turn: (
      note: PlayedNote,
      change: (typeof CHANGES)[number],
      before: PlayedNote | undefined,
    ) => number | null,
  ): PlayedNote[] {
    return notes.map((note, index) => {
      const change = CHANGES.find(({ at }) => Math.abs(note.onsetBeat - at) <= 0.25);
      const midi = change ? turn(note, change, notes[index - 1]) : null;
      return midi === null ? note : { ...note, midi };
    });
  }

  const toneOf = (symbolRoles: readonly { role: string; pc: number }[], ...roles: string[]): number | null =>
    symbolRoles.find((tone) => roles.includes(tone.role))?.pc ?? null;

  /** Phrases: stretches without a rest of three quarters of a beat. */
  function inPhrases(
    notes: readonly PlayedNote[],
    turn: (phrase: PlayedNote[], index: number) => PlayedNote[],
  ): PlayedNote[] {
    const phrases: PlayedNote[][] = [];
    for (const note of notes) {
      const last = phrases[phrases.length - 1]?.slice(-1)[0];
      if (last && note.onsetBeat - (last.onsetBeat + last.durationBeats) < 0.75)
        phrases[phrases.length - 1]!.push(note);
      else phrases.push([note]);
    }
    return phrases.flatMap(turn);
  }

  /** Eighths over the form from a rule of one's own: the next pitch from the last, with a breath every few bars. */
  function eighths(
    seed: number,
    next: (from: number, beat: number, random: Random) => number,
    breath = 0.16,
  ): PlayedNote[] {
    const random = seededRandom(seed);
    const notes: PlayedNote[] = [];
    let midi = 62;
    for (let beat = 0; beat < LINE.formBeats * choruses; beat += 0.5) {
      if (beat % 2 === 0 && random() < breath) {
        beat += 1;
        continue;
      }
      midi = next(midi, beat, random);
      notes.push({ onsetBeat: beat, durationBeats: 0.5, midi });
    }
    return notes;
  }

  /** Farther and farther from the beat: by so many milliseconds at the end. */
  const leaning = (notes: readonly PlayedNote[], ms: number): PlayedNote[] =>
    notes.map((note) => ({
      ...note,
      onsetBeat: note.onsetBeat + ((ms / 1000) * (tempo / 60) * note.onsetBeat) / (LINE.formBeats * choruses),
    }));

  const scaleAt = (beat: number): readonly number[] =>
    HARMONY.readings[soundingAt(LINE, beat).span.index]!.scale.pcs;
  const chordAt = (beat: number) => soundingAt(LINE, beat).span.chord!;
  const within = (midi: number): number => {
    if (midi < 50) return midi + 12;
    if (midi > 80) return midi - 12;
    return midi;
  };

  /** The nearest pitch of a scale one way. */
  function stepIn(pcs: readonly number[], from: number, way: 1 | -1): number {
    let midi = from + way;
    while (!pcs.includes(modulo(midi, 12))) midi += way;
    return midi;
  }

  const onlyChords = (note: PlayedNote): PlayedNote => ({
    ...note,
    midi: chordAt(note.onsetBeat + 0.1)
      .tones.map((tone) => near(note.midi, tone.pc))
      .sort((a, b) => Math.abs(a - note.midi) - Math.abs(b - note.midi))[0]!,
  });

  /** Over a chord, or near enough before it to belong to it. */
  const isOver = (note: PlayedNote, symbol: string): boolean =>
    [0.1, 0.6, 1.1].some((ahead) => chordAt(note.onsetBeat + ahead).symbol === symbol);
  const inOrder = (a: PlayedNote, b: PlayedNote): number => a.onsetBeat - b.onsetBeat || a.midi - b.midi;
  const BARS = (LINE.formBeats / 4) * choruses;

  /** Two bars of chord hits, two of line, in turn; `keep` may drop a note of the pair's bars 0 and 1, `hit` may change a hit. */
  function chordsAndLine(
    seed: number,
    keep: (note: PlayedNote, barInPair: number, beatInBar: number) => PlayedNote | null,
    hit: (chord: number[]) => number[],
  ): PlayedNote[] {
    const line = play(seed, { breathe: 0.1, early: 0, late: 0 }).filter(
      (note) => Math.floor(note.onsetBeat / 4 + 0.03) % 4 >= 2,
    );
    const hits = Array.from({ length: BARS }, (_, bar) => bar)
      .filter((bar) => bar % 4 < 2)
      .flatMap((bar) =>
        [0, 1.5, 3].flatMap((beat) => {
          const onsetBeat = bar * 4 + beat;
          const tones = chordAt(onsetBeat + 0.1).tones;
          return hit([0, 1, 3].map((index) => near(58, (tones[index] ?? tones[0]!).pc))).map((midi) => ({
            onsetBeat,
            durationBeats: 0.9,
            midi,
          }));
        }),
      );
    return [...line, ...hits]
      .sort(inOrder)
      .flatMap(
        (note) =>
          keep(note, Math.floor(note.onsetBeat / 4 + 0.03) % 2, modulo(note.onsetBeat + 0.12, 4) - 0.12) ??
          [],
      );
  }

  const withoutBars = (notes: readonly PlayedNote[], drop: (bar: number) => boolean): PlayedNote[] =>
    notes.filter((note) => !drop(Math.floor(note.onsetBeat / 4 + 0.03)));
  const everyFourth = (offset: number, make: (start: number) => PlayedNote[]): PlayedNote[] =>
    Array.from({ length: BARS }, (_, bar) => bar)
      .filter((bar) => bar % 4 === offset)
      .flatMap((bar) => make(bar * 4));

  const planted: readonly Planted[] = [
    {
      kind: 'target-missed',
      notes: (seed) => play(seed, { meet: 0.96, early: 0, late: 0, changes: { [weak.into]: 0.03 } }),
    },
    {
      kind: 'tone-missed',
      notes: (seed) =>
        atLandings(play(seed, { early: 0, late: 0 }), (note, { to }) =>
          // neither guide tone, but a tone of the chord each time
          [toneOf(to.tones, 'third'), toneOf(to.tones, 'seventh', 'sixth')].includes(modulo(note.midi, 12))
            ? near(note.midi, toneOf(to.tones, Math.round(note.onsetBeat) % 8 === 0 ? 'root' : 'fifth')!)
            : null,
        ),
    },
    {
      kind: 'still-on-old-chord',
      notes: (seed) =>
        atLandings(play(seed, { early: 0, late: 0 }), (note, { from, to }) => {
          const old = from.tones
            .filter((tone) => !to.tones.some((other) => other.pc === tone.pc))
            .map((tone) => near(note.midi, tone.pc));
          return seededRandom(seed * 1000 + Math.round(note.onsetBeat))() < 0.75
            ? (old.sort((a, b) => Math.abs(a - note.midi) - Math.abs(b - note.midi))[0] ?? null)
            : null;
        }),
    },
    {
      kind: 'landing-late',
      notes: (seed) =>
        play(seed, { early: 0, late: 0 }).flatMap((note) => {
          const change = CHANGES.find(({ at }) => note.onsetBeat > at - 1.2 && note.onsetBeat < at + 0.4);
          return change && seededRandom(seed * 77 + change.index)() < 0.85 ? [] : [note];
        }),
    },
    {
      kind: 'root-only',
      notes: (seed) =>
        atLandings(play(seed, { early: 0, late: 0 }), (note, { to }) =>
          seededRandom(seed * 31 + Math.round(note.onsetBeat * 4))() < 0.85
            ? near(note.midi, toneOf(to.tones, 'root')!)
            : null,
        ),
    },
    {
      kind: 'leaps-into-changes',
      notes: (seed) =>
        atLandings(play(seed, { early: 0, late: 0 }), (note, _, before) =>
          before && note.onsetBeat - before.onsetBeat - before.durationBeats < 1
            ? note.midi + (note.midi > before.midi ? 12 : -12)
            : null,
        ),
    },
    {
      kind: 'turns-late',
      notes: (seed) =>
        play(seed, { early: 0, late: 0 }).map((note) => ({ ...note, onsetBeat: note.onsetBeat + 1 })),
    },
    {
      kind: 'turns-early',
      notes: (seed) =>
        play(seed, { early: 0, late: 0 })
          .filter((note) => note.onsetBeat >= 2)
          .map((note) => ({ ...note, onsetBeat: note.onsetBeat - 1.5 })),
    },
    {
      kind: 'home-scale-only',
      notes: (seed) =>
        play(seed, { outside: 0, approach: 0 }, 'home-scale').map((note) => ({
          ...note,
          midi: HARMONY.homeScales[0]!.pcs.includes(modulo(note.midi, 12))
            ? note.midi
            : stepIn(HARMONY.homeScales[0]!.pcs, note.midi, 1),
        })),
    },
    {
      kind: 'outline-only',
      notes: (seed) => play(seed, { outside: 0, approach: 0 }, 'outline').map(onlyChords),
    },
    { kind: 'narrow-range', notes: (seed) => play(seed, { lowest: 60, highest: 71 }) },
    {
      kind: 'starts-on-one',
      notes: (seed) =>
        inPhrases(play(seed, { breathe: 0.8, density: 1 }), (phrase) => {
          const from = phrase.findIndex(
            (note) => Math.abs(note.onsetBeat / 4 - Math.round(note.onsetBeat / 4)) * 4 < 0.2,
          );
          return from < 0 ? [] : phrase.slice(from);
        }),
    },
    { kind: 'no-space', notes: (seed) => play(seed, { breathe: 0, density: 1 }) },
    {
      kind: 'phrases-too-short',
      notes: (seed) => play(seed, { density: 1 }).filter((note) => modulo(note.onsetBeat + 0.6, 4) < 2.2),
    },
    {
      kind: 'ends-asking',
      notes: (seed) =>
        inPhrases(play(seed, { breathe: 0.7 }), (phrase) =>
          phrase.map((note, index) => {
            if (index < phrase.length - 1) return note;
            const { tones } = chordAt(note.onsetBeat + 0.1);
            // the fourth of a major chord, the half step above the root of a minor one: neither tone nor colour
            const isMajor = tones.some(({ role, semitones }) => role === 'third' && semitones === 4);
            return { ...note, midi: near(note.midi, modulo(tones[0]!.pc + (isMajor ? 5 : 1), 12)) };
          }),
        ),
    },
    { kind: 'rushes', notes: (seed) => leaning(play(seed, { spreadMs: 8 }), -60) },
    { kind: 'drags', notes: (seed) => leaning(play(seed, { spreadMs: 8 }), 60) },
    { kind: 'uneven', notes: (seed) => play(seed, { spreadMs: 55 }) },
    {
      kind: 'no-upbeats',
      notes: (seed) =>
        play(seed, { density: 1 }).filter(
          (note) => Math.abs(note.onsetBeat - Math.round(note.onsetBeat)) < 0.2,
        ),
    },
    {
      kind: 'scale-running',
      notes: (seed) => {
        let way: 1 | -1 = 1;
        return eighths(seed, (from, beat) => {
          if (from > 76) way = -1;
          if (from < 53) way = 1;
          return stepIn(scaleAt(beat), from, way);
        });
      },
    },
    {
      kind: 'leaps-only',
      notes: (seed) =>
        eighths(seed, (from, beat, random) => {
          const onChange = CHANGES.some(({ at }) => at === beat);
          const pcs = onChange
            ? chordAt(beat)
                .tones.filter((tone) => ['third', 'seventh'].includes(tone.role))
                .map((tone) => tone.pc)
            : scaleAt(beat);
          for (let tries = 0; tries < 60; tries++) {
            const midi = 50 + Math.floor(random() * 32);
            if (pcs.includes(modulo(midi, 12)) && Math.abs(midi - from) >= 5 && Math.abs(midi - from) <= 14)
              return midi;
          }
          return within(from + 7);
        }),
    },
    {
      kind: 'one-direction',
      notes: (seed) => {
        let since = 0;
        return eighths(seed, (from, beat, random) => {
          const pcs = scaleAt(beat);
          since++;
          if (since > 4 + random() * 3) {
            since = 0;
            const low = Math.max(50, from - 10 - Math.floor(random() * 5));
            return stepIn(pcs, low, 1);
          }
          let midi = stepIn(pcs, from, 1);
          if (random() < 0.55) midi = stepIn(pcs, midi, 1);
          return within(midi);
        });
      },
    },
    {
      kind: 'stays-outside',
      notes: (seed) =>
        eighths(seed, (from, beat, random) => {
          const pcs = scaleAt(beat);
          const outside = Array.from({ length: 12 }, (_, pc) => pc).filter((pc) => !pcs.includes(pc));
          for (let tries = 0; tries < 40; tries++) {
            const midi = from + Math.floor(random() * 13) - 6;
            if (
              midi !== from &&
              midi > 50 &&
              midi < 80 &&
              (random() < 0.75 ? outside : pcs).includes(modulo(midi, 12))
            )
              return midi;
          }
          return within(from + 3);
        }),
    },
    {
      kind: 'lost-place',
      notes: (seed) =>
        play(seed)
          .map((note) =>
            note.onsetBeat >= 48 && note.onsetBeat < 92 ? { ...note, onsetBeat: note.onsetBeat + 4 } : note,
          )
          .filter(
            (note, index, all) =>
              !(
                note.onsetBeat >= 92 &&
                note.onsetBeat < 96 &&
                all.some((other) => other !== note && Math.abs(other.onsetBeat - note.onsetBeat) < 0.1)
              ),
          )
          .sort((a, b) => a.onsetBeat - b.onsetBeat),
    },
    {
      kind: 'same-shape',
      notes: (seed) => {
        const random = seededRandom(seed);
        const shape = [0, 2, 3, 5, 3];
        return Array.from({ length: 36 }, (_, phrase) => {
          const start = phrase * 8 + (phrase % 4) * 0.5 + 1;
          const base = 56 + Math.floor(random() * 12);
          return shape.map((step, index) => ({
            onsetBeat: start + [0, 0.5, 1, 2, 3][index]!,
            durationBeats: [0.5, 0.5, 0.9, 0.9, 1][index]!,
            midi: base + step,
          }));
        })
          .flat()
          .filter((note) => note.onsetBeat < LINE.formBeats * choruses);
      },
    },
    {
      kind: 'handover-late',
      notes: (seed) =>
        chordsAndLine(
          seed,
          (note, barInPair, beatInBar) => (barInPair === 0 && beatInBar < 1.4 ? null : note),
          (chord) => chord,
        ),
    },
    {
      kind: 'chord-hit-wrong',
      notes: (seed) => {
        const random = seededRandom(seed * 3 + 1);
        return chordsAndLine(
          seed,
          (note) => note,
          (chord) => (random() < 0.75 ? chord.map((midi) => midi + 1) : chord),
        );
      },
    },
    {
      kind: 'step-out-lost',
      notes: (seed) => {
        const random = seededRandom(seed * 5 + 2);
        return withoutBars(play(seed), (bar) => bar % 4 === 2)
          .concat(
            everyFourth(2, (start) => {
              const root = near(58 + Math.floor(random() * 10), chordAt(start).tones[0]!.pc) + 1;
              return [0, 4, 7, 12, 7, 4].map((step, n) => ({
                onsetBeat: start + n / 2,
                durationBeats: 0.5,
                midi: root + step,
              }));
            }),
          )
          .sort(inOrder);
      },
    },
    {
      kind: 'approach-unresolved',
      notes: (seed) => {
        const random = seededRandom(seed * 7 + 3);
        return play(seed, { approach: 0 }).map((note) => {
          const pcs = scaleAt(note.onsetBeat + 0.1);
          const onChange = CHANGES.some(({ at }) => Math.abs(note.onsetBeat - at) < 0.3);
          if (onChange || random() > 0.24) return note;
          const up = note.midi + (random() < 0.5 ? 5 : -6);
          return pcs.includes(modulo(up, 12)) || HARMONY.homeScales[0]!.pcs.includes(modulo(up, 12))
            ? note
            : { ...note, midi: up };
        });
      },
    },
    {
      kind: 'approach-one-side',
      notes: (seed) => {
        const notes = play(seed, { approach: 0, early: 0, late: 0 });
        return notes.map((note, index) => {
          const next = notes[index + 1];
          const led =
            next &&
            next.onsetBeat - note.onsetBeat <= 0.6 &&
            chordAt(next.onsetBeat + 0.1).tones.some((tone) => tone.pc === modulo(next.midi, 12));
          if (
            !led ||
            (chordAt(note.onsetBeat + 0.1).tones.some((tone) => tone.pc === modulo(note.midi, 12)) &&
              !CHANGES.some(({ at }) => Math.abs(next.onsetBeat - at) < 0.3))
          )
            return note;
          return { ...note, midi: next.midi - 1 };
        });
      },
    },
    {
      kind: 'no-approaches',
      notes: (seed) => {
        const notes = play(seed, { approach: 0, early: 0, late: 0 });
        return notes.map((note, index) => {
          const next = notes[index + 1];
          if (!next || !CHANGES.some(({ at }) => Math.abs(next.onsetBeat - at) <= 0.25)) return note;
          const tones = chordAt(note.onsetBeat + 0.1).tones.map((tone) => near(note.midi, tone.pc));
          return {
            ...note,
            midi: tones.sort((a, b) => Math.abs(a - note.midi) - Math.abs(b - note.midi))[0]!,
          };
        });
      },
    },
    {
      kind: 'change-ignored',
      notes: (seed) =>
        play(seed).map((note) =>
          isOver(note, weak.ignored.chord) && modulo(note.midi, 12) === weak.ignored.pc
            ? { ...note, midi: note.midi + 3 }
            : note,
        ),
    },
    {
      kind: 'tone-never-played',
      notes: (seed) => {
        const { tones } = unwrap(readChord(weak.never.chord));
        const guides = tones.filter(({ role }) => role === 'third' || role === 'seventh').map(({ pc }) => pc);
        // its root instead; and at the changes into it neither guide tone, so that the other one does not tell it
        return play(seed).map((note) => {
          const isInto = CHANGES.some(
            ({ at, to }) => to.symbol === weak.never.chord && Math.abs(note.onsetBeat - at) <= 0.6,
          );
          const left = isInto ? guides : [weak.never.pc];
          return isOver(note, weak.never.chord) && left.includes(modulo(note.midi, 12))
            ? { ...note, midi: near(note.midi, tones[0]!.pc) }
            : note;
        });
      },
    },
    {
      kind: 'starts-alike',
      notes: (seed) =>
        inPhrases(play(seed, { breathe: 0.8 }), (phrase) => {
          const from = phrase.findIndex((note) => Math.abs(modulo(note.onsetBeat, 4) - 1.5) < 0.2);
          return from < 0 ? [] : phrase.slice(from);
        }),
    },
  ];
  return { chart, tempo, choruses, goodPlayer, widePlayer, planted };
}
