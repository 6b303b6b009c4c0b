import {
  analyse,
  analyseAligned,
  asPlayed,
  MOST_UNASKED_MS,
  type PlayedNote,
  type Report,
} from '@/core/analyse';
import { readMidi, readNotes, toBeats } from '@/core/formats';
import { timelineOf } from '@/core/chart';
import { overlayOf, planOn } from '@/core/plan';
import { followedBars } from '@/core/review';
import { followedSummary, followedWords } from '@/presentation';
import { findingsOver, firstPageOf, heldAgainst, marksOf, onTheNeck } from '@/core/findings';
import { BadInput, valueOf } from './exit';
import {
  argumentsOf,
  chartFrom,
  numberFrom,
  onlyFile,
  PLAN_OPTIONS,
  planFrom,
  printJson,
  readFile,
  tempoFrom,
  wholeFrom,
} from './input';
import { page } from '../analysisPage';
import { hear } from './transcribe';

/** `analyse take.wav|notes.json|line.mid --chart chart.txt`: the report. */
export function analyseCommand(args: string[]): void {
  const { values, positionals } = argumentsOf(args, {
    chart: { type: 'string' },
    tempo: { type: 'string' },
    offset: { type: 'string' },
    ...PLAN_OPTIONS,
    overlay: { type: 'string' },
    before: { type: 'string', multiple: true },
    choruses: { type: 'string' },
    tuning: { type: 'string' },
    json: { type: 'boolean' },
  });
  const file = onlyFile(positionals, 'the take: WAV, notes JSON or MIDI');
  if (values.chart === undefined) throw new BadInput('Name the chart: --chart chart.txt.');
  const chart = chartFrom(values.chart);
  const tempo = tempoFrom(values.tempo, chart);
  const auto = values.offset === 'auto';
  const offset = auto ? 0 : numberFrom(values.offset, 'offset', -3600, 3600, 0);
  const choruses =
    values.choruses === undefined ? undefined : wholeFrom(values.choruses, 'choruses', 1, 1000);
  const notes = notesFrom(file, tempo, offset, values.tuning);
  refuseEmpty(notes, tempo, offset);
  const plan = planFrom(values, chart);
  const request = { chart, tempo, notes, plan, choruses };
  const { report, alignment } = auto
    ? analyseAligned(request)
    : { report: analyse(request), alignment: null };
  const earlier = (values.before ?? []).map((given) => {
    const { path, tempo: own } = beforeFrom(given, tempo);
    return {
      chart,
      tempo: own,
      plan,
      report: analyse({ chart, plan, tempo: own, notes: notesFrom(path, own, offset, values.tuning) }),
    };
  });
  const own = { chart, tempo, plan, report };
  const found = findingsOver([...earlier, own]);
  const firstPage = firstPageOf(own, { ...found, findings: heldAgainst(found.findings, earlier) });
  const overlay = values.overlay === undefined ? plan.overlay : readFile(values.overlay).toString('utf8');
  const followed = overlay === undefined ? [] : followedBars({ chart, overlay, tempo, plan, report });
  // superimposed changes are judged beside the written ones, by the same plan
  const laid =
    values.overlay === undefined
      ? null
      : analyse({
          chart: valueOf(overlayOf(chart, readFile(values.overlay).toString('utf8'))),
          tempo,
          notes,
          plan,
          choruses,
        });
  warnOfLean(report, offset);
  const timeline = timelineOf(chart, tempo);
  const marks = () => marksOf(report, planOn(chart, timeline, plan).plan, chart, tempo);
  if (values.json)
    printJson({
      ...asPlayed(report),
      ...found,
      firstPage,
      neck: onTheNeck(report),
      ...(alignment ? { alignment } : {}),
      ...(laid ? { overlay: laid } : {}),
      ...(followed.length > 0 ? { followed } : {}),
    });
  else {
    process.stdout.write(page(chart, tempo, report, firstPage, marks(), onTheNeck(report)));
    if (followed.length > 0)
      process.stdout.write(
        `\nCHANGES LAID OVER\n  ${[followedSummary(followed), ...followed.map(followedWords)].join('\n  ')}\n`,
      );
  }
}

/** Refuses an offset that leaves no note. */
function refuseEmpty(notes: readonly PlayedNote[], tempo: number, offset: number): void {
  if (offset <= 0 || notes.length === 0) return;
  if (notes.some((note) => note.onsetBeat + note.durationBeats > 0)) return;
  const end = `Its last one ends ${lastEnd(notes, tempo, offset)} s in.`;
  throw new BadInput(`--offset ${offset} lies past the end of the take: no note is left. ${end}`);
}

/** Says that the whole take lies beside the beat, and what was done about it (T1.6). */
function warnOfLean({ time: { offsetMs, lean } }: Report, offset: number): void {
  const ms = offsetMs ?? 0;
  if (Math.abs(ms) <= MOST_UNASKED_MS) return;
  const where = `${Math.abs(Math.round(ms))} ms ${ms > 0 ? 'behind' : 'ahead of'} the beat`;
  const done =
    lean.takenMs !== 0 ? 'It was judged as if it sat on it' : 'Nothing was moved: measure the latency';
  process.stderr.write(
    `The notes lie ${where}. ${done}; if that is latency, give --offset ${(offset + ms / 1000).toFixed(3)}.\n`,
  );
}

function notesFrom(file: string, tempo: number, offset: number, tuning?: string): PlayedNote[] {
  const bytes = readFile(file);
  const start = bytes.subarray(0, 4).toString('latin1');
  if (start === 'MThd')
    return valueOf(readMidi(bytes)).map((note) => ({
      ...note,
      onsetBeat: note.onsetBeat - (offset * tempo) / 60,
    }));
  if (/^\s*[{[]/.test(bytes.subarray(0, 64).toString('utf8')))
    return toBeats(valueOf(readNotes(bytes.toString('utf8'))), tempo, offset);
  return toBeats(hear(file, tuning).transcription, tempo, offset);
}

/** `earlier.json` at the same tempo, or `earlier.json@84`. */
function beforeFrom(given: string, tempo: number): { readonly path: string; readonly tempo: number } {
  const [, path, own] = /^(.+)@([\d.]+)$/.exec(given) ?? [];
  return path === undefined ? { path: given, tempo } : { path, tempo: numberFrom(own, 'before', 20, 400) };
}

const lastEnd = (notes: readonly PlayedNote[], tempo: number, offset: number): string =>
  (
    (notes.reduce((last, note) => Math.max(last, note.onsetBeat + note.durationBeats), -Infinity) * 60) /
      tempo +
    offset
  ).toFixed(1);
