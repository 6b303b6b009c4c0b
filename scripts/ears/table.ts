import {
  CONDITIONS,
  isSingleLine,
  recordedTake,
  soundfontTake,
  type Condition,
} from '../../tests/corpora/conditions';
import { loadGuitar, type Instrument } from '../../tests/corpora/guitarSamples';
import {
  HELD_OUT_CONDITIONS,
  HELD_OUT_INSTRUMENTS,
  heldOutMissing,
  heldOutTake,
} from '../../tests/corpora/heldOutSet';
import { CHORDAL } from '../../tests/corpora/lines';
import type { LabelledTake } from '../../tests/corpora/line';
import { soundfontMissing } from '../../tests/corpora/soundfontSet';
import { quantile, reported, Tally, type ReportedNote } from '../../tests/score/evaluate';
import { neuralPeer } from '../../tests/score/neuralPeer';
import { pitchy, plainAutocorrelation, type Peer } from '../../tests/score/peers';
import { transcribe } from '../../src/core/transcribe';
import { elementAt, present } from '@/core/shared';

const own: Peer & { withBand: (take: LabelledTake) => ReportedNote[] } = {
  name: 'Idle Wander',
  notes: (samples, rate) => reported(transcribe(samples, rate).notes),
  withBand: (take) =>
    reported(
      transcribe(
        take.samples,
        take.rate,
        take.backing ? { backing: { samples: take.backing, rate: take.rate } } : {},
      ).notes,
    ),
};
const PEERS: readonly Peer[] = [pitchy, plainAutocorrelation];
const INSTRUMENTS: readonly Instrument[] = ['acoustic', 'electric', 'nylon'];
const PROGRAMS = ['nylonString', 'steelString', 'jazz', 'clean'] as const;

/** A line of a table: what is played, and whether one string at a time. */
type Row = { readonly name: string; readonly isSingle: boolean; readonly takes: () => LabelledTake[] };
type Named = { readonly name: string; readonly rows: readonly Row[] };

async function sets(): Promise<Named[]> {
  const guitars = await Promise.all(
    INSTRUMENTS.map(async (name) => (await loadGuitar(name)).filter(({ share }) => share === 'decide')),
  );
  const rowsOf = (takesOf: (condition: Condition) => LabelledTake[]): Row[] =>
    CONDITIONS.map((condition) => ({
      name: condition.name,
      isSingle: isSingleLine(condition),
      takes: () => takesOf(condition),
    }));
  const found: Named[] = [
    {
      name: 'recorded notes: samples and lines kept for deciding',
      rows: rowsOf((condition) =>
        guitars.flatMap((guitar, index) =>
          SEEDS.map((seed) => recordedTake(condition, guitar, 7000 + seed + 100 * index)),
        ),
      ),
    },
  ];
  const missing = soundfontMissing();
  if (missing) console.log(`The soundfont set is left out: ${missing}.`);
  else
    found.push({
      name: 'soundfont: lines kept for deciding',
      rows: rowsOf((condition) =>
        PROGRAMS.flatMap((program, index) =>
          SEEDS.map((seed) => soundfontTake(condition, program, 7000 + seed + 100 * index)),
        ),
      ),
    });
  const missingHeldOut = heldOutMissing();
  if (missingHeldOut) console.log(`The instruments and effects held out are left out: ${missingHeldOut}.`);
  else
    found.push({
      name: 'held out: instruments and effects the fit heard nothing of',
      rows: HELD_OUT_CONDITIONS.map((condition, row) => ({
        name: condition.name,
        isSingle: !CHORDAL.includes(condition.kind),
        takes: () =>
          HELD_OUT_INSTRUMENTS.map((instrument, index) =>
            heldOutTake(condition, instrument, 7001 + row + 100 * index),
          ),
      })),
    });
  return found;
}

const SEEDS = [1, 2];
const percent = (value: number) => (100 * value).toFixed(1);
const ms = (value: number) => (1000 * value).toFixed(0);

/**
 * A table a set: every condition, this engine beside general-purpose trackers on the same files.
 * @param only what the name of a set begins with: recorded, soundfont, held; all where nothing is named
 */
export async function earsTable(only = ''): Promise<void> {
  for (const set of (await sets()).filter(({ name }) => name.startsWith(only))) {
    console.log(`\nEars, ${set.name}; note F1 in per cent, onset within 50 ms, pitch within 50 cents\n`);
    console.log(
      `| condition | F1 | precision | recall | octaves off | onset ms, median | 95th | cents | × real time | ${PEERS.map(({ name }) => `${name} F1`).join(' | ')} |`,
    );
    console.log(`| --- |${' ---: |'.repeat(8 + PEERS.length)}`);
    const single: number[][] = [];
    const speeds: number[][] = [];
    for (const row of set.rows) {
      const tallies = [own, ...PEERS].map(() => new Tally());
      for (const take of row.takes()) {
        [own, ...PEERS].forEach((engine, index) => {
          const started = performance.now();
          const notes = index === 0 ? own.withBand(take) : engine.notes(take.samples, take.rate);
          elementAt(tallies, index).add(take, notes, (performance.now() - started) / 1000);
        });
      }
      const [ours, ...peers] = tallies as [Tally, ...Tally[]];
      if (row.isSingle) single.push(tallies.map(({ f1 }) => f1));
      speeds.push(tallies.map(({ seconds, spent }) => seconds / spent));
      console.log(
        `| ${row.name} | ${percent(ours.f1)} | ${percent(ours.precision)} | ${percent(ours.recall)} | ${ours.octaves} | ${ms(quantile(ours.onsetErrors, 0.5))} | ${ms(quantile(ours.onsetErrors, 0.95))} | ${quantile(ours.centErrors, 0.5).toFixed(1)} | ${(ours.seconds / ours.spent).toFixed(0)} | ${peers.map(({ f1 }) => percent(f1)).join(' | ')} |`,
      );
    }
    const mean = (rows: number[][], column: number) =>
      rows.reduce((sum, row) => sum + elementAt(row, column), 0) / rows.length;
    console.log(
      `| **single lines, mean** | **${percent(mean(single, 0))}** |  |  |  |  |  |  | ${mean(speeds, 0).toFixed(0)} | ${PEERS.map((_, index) => percent(mean(single, index + 1))).join(' | ')} |`,
    );
    console.log(
      `\nWorst single-line condition: ${percent(Math.min(...single.map(([ours]) => present(ours))))}. Speed of the peers: ${PEERS.map(({ name }, index) => `${name} ${mean(speeds, index + 1).toFixed(0)} ×`).join(', ')}.`,
    );
  }
}

/**
 * The neural transcriber beside this engine, one take a condition: it is slower than real time. Nothing where
 * it is not installed.
 */
export async function neuralTable(): Promise<void> {
  const peer = await neuralPeer();
  if (!peer) return;
  for (const set of await sets()) {
    console.log(
      `\nEars beside ${peer.name}, ${set.name}: one take a condition, note F1 in per cent\n\n| condition | Idle Wander | ${peer.name} |\n| --- | ---: | ---: |`,
    );
    const single: [number, number][] = [];
    let [seconds, spent] = [0, 0];
    for (const row of set.rows) {
      const take = elementAt(row.takes(), 2);
      const [ours, theirs] = [new Tally(), new Tally()];
      ours.add(take, own.withBand(take), 0);
      const started = performance.now();
      theirs.add(take, await peer.notes(take.samples, take.rate), 0);
      spent += (performance.now() - started) / 1000;
      seconds += take.seconds;
      if (row.isSingle) single.push([ours.f1, theirs.f1]);
      console.log(`| ${row.name} | ${percent(ours.f1)} | ${percent(theirs.f1)} |`);
    }
    const mean = (column: 0 | 1) => single.reduce((sum, row) => sum + row[column], 0) / single.length;
    console.log(
      `| **single lines, mean** | **${percent(mean(0))}** | ${percent(mean(1))} |\n\n${peer.name}: ${(seconds / spent).toFixed(2)} × real time.`,
    );
  }
}
