import { useEffect, useMemo, useSyncExternalStore } from 'react';
import { analyse, type PlayedNote } from '@/core/analyse';
import { timelineOf, type Chart } from '@/core/chart';
import { planOn, type PlanChoice } from '@/core/plan';
import { marksOf } from '@/core/findings';
import type { TakeSession } from '@/audio/takeSession';
import { takeOnForm, type TakeOnForm } from '@/ui/form/takeOnForm';

/**
 * Notes that are judged while a take runs: a chorus or two of quick playing. What came before is judged at the
 * end.
 */
const JUDGED = 160;

/** The running take as marks on the form: judged anew with every note, the sounding one growing in between. */
export function useLiveLine(session: TakeSession, plan: PlanChoice): TakeOnForm | null {
  const { chart, pace } = session.route;
  const [tempo] = pace.tempi as [number];
  const heard = useSyncExternalStore(session.line.subscribe, session.line.read, session.line.read);
  const last = heard.at(-1);
  const key = `${heard.length} ${last?.midi ?? ''} ${last?.onsetSec ?? ''}`;
  const judged = useMemo(() => {
    const notes = heard
      .slice(-JUDGED)
      .map((note): PlayedNote => ({
        onsetBeat: session.beatAt(note.onsetSec),
        durationBeats: Math.max(0.05, session.beatAt(note.offsetSec) - session.beatAt(note.onsetSec)),
        midi: note.midi,
        cents: note.cents,
      }))
      .filter(({ onsetBeat }) => onsetBeat > -1);
    return notes.length === 0 ? null : judgedLine(chart, tempo, plan, notes);
    // eslint-disable-next-line react-hooks/exhaustive-deps -- a note that merely grows is not judged anew
  }, [key, chart, tempo, plan, session]);
  useEffect(() => {
    if (last) session.drawn(last.onsetSec);
  }, [session, last?.onsetSec]); // eslint-disable-line react-hooks/exhaustive-deps -- told once for each note
  return useMemo(
    () => (judged && last ? grown(judged, session.beatAt(last.offsetSec)) : null),
    [judged, last, session],
  );
}

function judgedLine(chart: Chart, tempo: number, plan: PlanChoice, notes: readonly PlayedNote[]): TakeOnForm {
  const report = analyse({ chart, tempo, notes, plan });
  const timeline = timelineOf(chart, tempo);
  const drawn = takeOnForm(report, marksOf(report, planOn(chart, timeline, plan).plan, chart, tempo));
  const until = Math.max(...notes.map(({ onsetBeat }) => onsetBeat));
  const first = Math.min(...notes.map(({ onsetBeat }) => onsetBeat));
  // what lies ahead has not been missed yet, and how a phrase ends is known when the next begins
  return {
    ...drawn,
    changes: drawn.changes.filter(({ at }) => at >= first - 1 && at <= until - 0.5),
    phrases: drawn.phrases.filter(({ to }) => to < until),
  };
}

/** The last note reaches as far as it has sounded. */
function grown(line: TakeOnForm, end: number): TakeOnForm {
  const last = line.notes.at(-1);
  if (!last || end <= last.end) return line;
  const parts = last.parts.map((part, index) =>
    index === last.parts.length - 1 ? { ...part, to: end } : part,
  );
  return { ...line, notes: [...line.notes.slice(0, -1), { ...last, end, parts }] };
}
