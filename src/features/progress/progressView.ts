import {
  FEWEST,
  progressWords,
  type Course,
  type KindCourse,
  type ProgressPlateau,
  type Progress,
} from '@/core/scheduling';
import { typeset } from '@/core/music';

/** One row of the picture: what it is, its weeks, and what is said of it. */
export type CourseRow = {
  readonly id: string;
  readonly from: string | null;
  readonly name: string;
  readonly course: Course;
  readonly word: string;
  readonly detail: string;
  readonly advice: string | null;
};
export type ProgressHeadline = 'changes' | 'tones' | 'approaches' | 'weeks';
export const SIGHTS: readonly (readonly [ProgressHeadline, string])[] = [
  ['changes', 'Kinds of change'],
  ['tones', 'Tones'],
  ['approaches', 'Ways in'],
  ['weeks', 'Weeks'],
];

/** The weeks that are drawn of each course, the last of them. */
export const MOST_WEEKS = 4;

const points = (share: number): string => `${signOf(share)}${Math.abs(Math.round(100 * share))}`;
const ADVICE: Record<ProgressPlateau['advice'], string> = {
  slower: 'Try it slower.',
  smaller: 'Try two bars of it.',
  other: 'Try another way in.',
};

const WORDS: Record<Course['verdict'], string> = {
  better: 'Better',
  'probably better': 'Probably better',
  'as before': 'As before',
  'probably worse': 'Probably less',
  worse: 'Less',
  'too few to judge': 'Too few to judge',
  'first week': 'First week',
};

function row(id: string, from: string | null, name: string, course: Course): CourseRow {
  const { verdict, difference, between, weeks, plateau } = course;
  const last = weeks[weeks.length - 1];
  let detail: string;
  if (difference === null || between === null) {
    if (last && last.of < FEWEST) detail = `${last.of} so far; five at least`;
    else detail = '';
  } else detail = `${points(difference)} points, between ${points(between[0])} and ${points(between[1])}`;
  return {
    id,
    from,
    name,
    course,
    word: plateau ? `${plateau.weeks} weeks the same` : WORDS[verdict],
    detail,
    advice: plateau ? ADVICE[plateau.advice] : null,
  };
}

export const changeRows = ({ kinds }: Progress): CourseRow[] =>
  kinds.map((kind: KindCourse) => row(`${kind.from}→${kind.to}`, kind.from, kind.to, kind));
export const toneRows = ({ tones }: Progress): CourseRow[] =>
  tones.map(({ name, ...course }) => row(name, null, `the ${name}`, course));
export const approachRows = ({ approaches }: Progress): CourseRow[] =>
  approaches.map(({ name, ...course }) => row(name, null, name, course));

/** When a week was, seen from the latest one of the picture. */
export function weekName(week: number, thisWeek: number): string {
  const ago = thisWeek - week;
  if (ago === 0) return 'this week';
  if (ago === 1) return 'last week';
  return `${ago} weeks ago`;
}

export const saidOf = (progress: Progress): { readonly soft: string; readonly bold: string } =>
  progressWords(progress, typeset);

function signOf(share: number) {
  if (share > 0) return '+';
  if (share < 0) return '−';
  return '';
}
