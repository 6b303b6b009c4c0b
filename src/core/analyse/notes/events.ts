import { type BeatsPerMinute, defined } from '../../shared';
import { judgePitch } from './judgedPitch';
import type { PlayedNote } from './played';
import { pitchClassAt, type Event, type Line, type Voice } from './voice';
import { EPSILON, type Windows } from './windows';

export type NoteEvents = {
  readonly voices: readonly Voice[];
  readonly events: readonly Event[];
  readonly line: Line;
};

/** A voice while events and graces are being found. */
type Draft = { -readonly [K in keyof Voice]: Voice[K] };

/**
 * Notes to events and the line: judged pitches, simultaneous notes joined, graces lent to the note they
 * lead to.
 * Rule T4.4: One note: single; two: dyad; three or more: chord hit … All voices belong to the chord of the
 * line note … the top voice
 * carries the line.
 */
export function groupNotes(
  notes: readonly PlayedNote[],
  tempo: BeatsPerMinute,
  windows: Windows,
): NoteEvents {
  const drafts = draftsOf(notes, tempo);
  const groups = groupEvents(drafts, windows);
  markGraces(groups, windows);
  return settle(drafts, groups);
}

function draftsOf(notes: readonly PlayedNote[], tempo: BeatsPerMinute): Draft[] {
  // nearly every note is neither bent nor slid
  const settled: PlayedNote[] = [];
  for (const note of notes)
    if (note.bend || note.slide) settled.push(...judgePitch(note, tempo));
    else settled.push(note);
  return settled
    .sort((a, b) => a.onsetBeat - b.onsetBeat || a.midi - b.midi)
    .map((played, index) => {
      const judged = played.midi + (played.cents ?? 0) / 100;
      const pitch = Math.round(judged);
      return {
        index,
        played,
        pitch,
        pc: pitchClassAt(pitch),
        bentBy: judged - pitch,
        onset: played.onsetBeat,
        end: played.onsetBeat + played.durationBeats,
        event: -1,
        top: false,
        grace: false,
      };
    });
}

/**
 * Rule T4.4: Event: notes whose struck onsets lie within 50 ms of the event's first, each starting before any
 * of the others has ended.
 */
function groupEvents(drafts: readonly Draft[], windows: Windows): Draft[][] {
  const groups: Draft[][] = [];
  // the first end in the group so far
  let ends = -Infinity;
  for (const draft of drafts) {
    const group = groups[groups.length - 1];
    const joins =
      group &&
      draft.onset - defined(group[0]).onset <= windows.event + EPSILON &&
      draft.onset < ends - EPSILON;
    if (joins) group.push(draft);
    else groups.push([draft]);
    ends = joins ? Math.min(ends, draft.end) : draft.end;
  }
  return groups;
}

/**
 * Rule T4.3: Grace: shorter than min(0.2 beat, 90 ms) and followed with a gap ≤ 30 ms by a longer note 1–3
 * semitones away; a chain of such notes before one longer note are all
 * its graces … The main note takes the first grace's onset and keeps `from`.
 *
 * A single note shorter than min(0.2 beat, 90 ms), followed within 30 ms by a longer note 1–3 semitones
 * away, is its grace; so is
 * a chain of such notes. The main note takes the first grace's onset.
 */
function markGraces(groups: readonly Draft[][], windows: Windows): void {
  const isShort = (draft: Draft) => draft.end - draft.onset < windows.grace - EPSILON;
  for (let place = groups.length - 1; place > 0; place--) {
    const before = defined(groups[place - 1]);
    const main =
      before.length === 1
        ? defined(groups[place]).find((voice) => !voice.grace && leads(defined(before[0]), voice, windows))
        : undefined;
    if (
      !main ||
      !isShort(defined(before[0])) ||
      main.end - main.onset <= defined(before[0]).end - defined(before[0]).onset + EPSILON
    )
      continue;
    let [first, next] = [place - 1, defined(before[0])];
    next.grace = true;
    while (
      first > 0 &&
      defined(groups[first - 1]).length === 1 &&
      isShort(defined(groups[first - 1])[0]!) &&
      leads(defined(groups[first - 1])[0]!, next, windows)
    ) {
      first--;
      next = defined(groups[first])[0]!;
      next.grace = true;
    }
    main.onset = next.onset;
    main.from = next.index;
    place = first + 1;
  }
}

function leads(grace: Draft, to: Draft, windows: Windows): boolean {
  const distance = Math.abs(to.pitch - grace.pitch);
  return distance >= 1 && distance <= 3 && to.played.onsetBeat - grace.end <= windows.graceGap + EPSILON;
}

/** Graces fall to the event of their main note but are no voices of it. */
function settle(drafts: readonly Draft[], groups: readonly Draft[][]): NoteEvents {
  const events: Event[] = [];
  for (const group of groups) {
    const index = events.length;
    for (const draft of group) draft.event = index;
    if (group.every((draft) => draft.grace)) continue;
    const voices =
      group.length === 1 ? group : [...group].sort((a, b) => a.pitch - b.pitch || a.index - b.index);
    defined(voices[voices.length - 1]).top = true;
    let [onset, end] = [Infinity, -Infinity];
    for (const voice of voices) [onset, end] = [Math.min(onset, voice.onset), Math.max(end, voice.end)];
    events.push({ index, onset, end, voices });
  }
  return { voices: drafts, events, line: events.map(({ voices }) => defined(voices[voices.length - 1])) };
}
