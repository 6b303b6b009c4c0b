import type { Report } from './report';

/** A report with its notes and events where they were played: as it is printed and saved. */
export function asPlayed(report: Report): Report {
  const notes = report.notes.map(({ playedBeat, ...note }) => ({
    ...note,
    onsetBeat: playedBeat ?? note.onsetBeat,
  }));
  const events = report.events.map((event) => {
    const [first] = event.noteIndices;
    const note = first === undefined ? undefined : report.notes[first];
    const moved = note?.playedBeat === undefined ? 0 : note.playedBeat - note.onsetBeat;
    return { ...event, onsetBeat: event.onsetBeat + moved };
  });
  return { ...report, notes, events };
}
