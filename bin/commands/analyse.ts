import { analyse, type PlayedNote, type Report } from '@/core/analyse';
import type { Chart } from '@/core/chart';
import { readMidi, readNotes, toBeats } from '@/core/formats';
import { overlayOf } from '@/core/plan';
import { findingsOf, typeset, type Finding } from '@/core/practise';
import { BadInput, valueOf } from './exit';
import { argumentsOf, chartFrom, numberFrom, onlyFile, planFrom, printJson, readFile, tempoFrom, wholeFrom } from './input';
import { hear } from './transcribe';

/** `analyse take.wav|notes.json|line.mid --chart chart.txt`: the report. */
export function analyseCommand(args: string[]): void {
  const { values, positionals } = argumentsOf(args, {
    chart: { type: 'string' }, tempo: { type: 'string' }, offset: { type: 'string' }, plan: { type: 'string' }, home: { type: 'string' }, target: { type: 'string' }, degrees: { type: 'string' }, mode: { type: 'string' }, overlay: { type: 'string' },
    choruses: { type: 'string' }, tuning: { type: 'string' }, json: { type: 'boolean' },
  });
  const file = onlyFile(positionals, 'the take: WAV, notes JSON or MIDI');
  if (values.chart === undefined) throw new BadInput('Name the chart: --chart chart.txt.');
  const chart = chartFrom(values.chart);
  const tempo = tempoFrom(values.tempo, chart);
  const offset = numberFrom(values.offset, 'offset', -3600, 3600, 0);
  const choruses = values.choruses === undefined ? undefined : wholeFrom(values.choruses, 'choruses', 1, 1000);
  const notes = notesFrom(file, tempo, offset, values.tuning);
  const plan = planFrom(values);
  const report = analyse({ chart, tempo, notes, plan, choruses });
  const findings = findingsOf({ chart, tempo, plan, report });
  // superimposed changes are judged beside the written ones, by the same plan
  const laid = values.overlay === undefined ? null : analyse({ chart: valueOf(overlayOf(chart, readFile(values.overlay).toString('utf8'))), tempo, notes, plan, choruses });
  if (values.json) printJson({ ...report, findings, ...(laid ? { overlay: laid } : {}) });
  else process.stdout.write(page(chart, report, findings));
}

function notesFrom(file: string, tempo: number, offset: number, tuning?: string): PlayedNote[] {
  const bytes = readFile(file);
  const start = bytes.subarray(0, 4).toString('latin1');
  if (start === 'MThd') return valueOf(readMidi(bytes)).map((note) => ({ ...note, onsetBeat: note.onsetBeat - (offset * tempo) / 60 }));
  if (/^\s*[{[]/.test(bytes.subarray(0, 64).toString('utf8'))) return toBeats(valueOf(readNotes(bytes.toString('utf8'))), tempo, offset);
  return toBeats(hear(file, tuning).transcription, tempo, offset);
}

/** A page for a terminal. */
function page(chart: Chart, report: Report, findings: readonly Finding[]): string {
  const { summary } = report;
  const lines = [
    `${chart.title || 'Untitled'}: ${summary.notes} notes over ${summary.choruses} ${summary.choruses === 1 ? 'chorus' : 'choruses'}`,
    `Targets met at ${summary.targetsMet} of ${summary.judgedChanges} changes${summary.targetsMetLate ? `, ${summary.targetsMetLate} more late` : ''}.`, '',
    ...findings.slice(0, 3).map((finding, index) => `${index + 1}. ${[finding.sentence, finding.detail].filter(Boolean).join(' ')}`), '',
    ...report.changes.map((change) => {
      const { landing } = change;
      return `chorus ${change.chorus} bar ${String(change.bar).padStart(2)}  ${typeset(`${change.from} → ${change.to}`).padEnd(18)} ${landing.rest ? 'at rest' : landing.interval ? `${typeset(landing.interval)} ${landing.timing}, ${landing.verdict}` : 'no landing'}`;
    }),
  ];
  return `${lines.join('\n')}\n`;
}
