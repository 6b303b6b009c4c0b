import { timelineOf, type Timeline } from '../chart';
import { groupNotes, type NoteEvents } from './notes/events';
import type { PlayedNote } from './notes/played';
import { EPSILON, windowsAt } from './notes/windows';
import type { AnalysisRequest } from './report';
import { knownLean, leanOf, withoutLean } from './time/lean';

type OnForm = ReturnType<typeof layOnForm>;
const laid = new WeakMap<readonly PlayedNote[], { of: AnalysisRequest; onForm: OnForm }>();

/** What no plan and no home scale changes is kept with the notes: another plan is then judged the quicker. */
export function onForm(request: AnalysisRequest): OnForm {
  const before = laid.get(request.notes);
  const names = ['chart', 'tempo', 'choruses', 'isLatencyMeasured', 'leanMs'] as const;
  if (before && names.every((name) => before.of[name] === request[name])) return before.onForm;
  const made = layOnForm(request);
  laid.set(request.notes, { of: request, onForm: made });
  return made;
}

function layOnForm({ chart, tempo, notes: played, ...request }: AnalysisRequest) {
  const { choruses: given, isLatencyMeasured = false, leanMs } = request;
  const timeline = timelineOf(chart, tempo);
  const lean =
    leanMs === undefined
      ? leanOf(played, timeline, isLatencyMeasured)
      : knownLean(leanMs, timeline, isLatencyMeasured);
  const notes = withoutLean(played, timeline, lean);
  const windows = windowsAt(tempo);
  // where the number of choruses is told, what begins after the last one is no part of the take
  const heard = groupNotes(
    given === undefined
      ? notes
      : notes.filter((note) => note.onsetBeat + windows.tol < given * timeline.formBeats),
    tempo,
    windows,
  );
  return { timeline, lean, windows, heard, choruses: given ?? chorusesOf(timeline, heard) };
}

/** The form repeats until the last onset. */
const chorusesOf = (timeline: Timeline, { line }: NoteEvents): number =>
  Math.max(1, Math.floor(((line[line.length - 1]?.onset ?? 0) + EPSILON) / timeline.formBeats) + 1);
