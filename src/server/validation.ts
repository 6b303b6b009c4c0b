import { LIMITS } from '@/core/contracts';
import Joi from 'joi';
import type { DropOut } from '@/core/band';
import type { Edit, TakeWords } from '@/core/correct';
import type { ToneName } from '@/core/findings';
import { DRILL_KINDS, type DrillKind, type Motif } from '@/core/drills';
import { MOST_FRETS } from '@/core/neck';
import { type FormulaNote, type KeptPhrase, type PhraseNote } from '@/core/phrases';
import {
  dropOutSchema,
  goalSchema,
  editsSchema,
  NOTES_SCHEMA,
  notesSchema,
  paceSchema,
  planSchema,
  wordsSchema,
  type GoalWords,
} from '@/core/formats';
import { PLAN_IDS, planFromWords, type PlanWords } from '@/core/plan';
import type { Pace } from '@/core/chart';
import type { Transcription } from '@/core/transcribe';
import { idSchema } from './ids';

export type ChartBody = { text: string };
/** The text may be wrong as a chart: it is kept while it is being typed. Only its size is limited. */
export const chartBody = Joi.object<ChartBody>({ text: Joi.string().allow('').max(65_536).required() });

export type RestoreBody = { version: string };
export const restoreBody = Joi.object<RestoreBody>({ version: idSchema });

const bar = Joi.number().integer().min(1).max(512);

export type NewTakeBody = {
  /**
   * Made where the take is recorded, so that it can begin while the server is away; the same take is begun
   * once.
   */
  id?: string;
  chartId: string;
  tempo: number;
  choruses: number;
  plan: PlanWords;
  rate: number;
  source: 'microphone' | 'file' | 'stand-in';
  /**
   * What was played where it is not the chart as it stands: some bars, moving keys, or the chart as it was
   * when the take began.
   */
  chartText?: string;
  title?: string;
  pace?: Pace;
  bits?: 16 | 24;
  device?: string;
  latencySec?: number;
  createdAt?: number;
  dropOut?: DropOut;
  /** The drill this is an attempt at. */ drillId?: string;
};
export const newTakeBody = Joi.object<NewTakeBody>({
  chartId: idSchema,
  tempo: Joi.number().min(20).max(400).required(),
  choruses: Joi.number().integer().min(1).max(100).required(),
  plan: planSchema.required(),
  rate: Joi.number().integer().min(4_000).max(384_000).required(),
  source: Joi.string().valid('microphone', 'file', 'stand-in').required(),
  id: idSchema.optional(),
  chartText: Joi.string().max(65_536),
  title: Joi.string().min(1).max(120),
  bits: Joi.number().valid(16, 24),
  device: Joi.string().allow('').max(200),
  latencySec: Joi.number().min(-0.2).max(1),
  pace: paceSchema,
  createdAt: Joi.number().integer().min(0),
  drillId: idSchema.optional(),
  dropOut: dropOutSchema,
});

export type FinishBody = { frames: number; offsetSec: number; transcription: Transcription };
export const finishBody = Joi.object<FinishBody>({
  frames: Joi.number()
    .integer()
    .min(1)
    .max(2 ** 32)
    .required(),
  offsetSec: Joi.number().min(-600).max(600).required(),
  transcription: (notesSchema as Joi.ObjectSchema)
    .keys({
      schema: Joi.string().valid(NOTES_SCHEMA).required(),
      durationSec: Joi.number().min(0).required(),
      playingLevel: Joi.number().required(),
      certainty: Joi.number().min(0).max(1).optional(),
      tuning: Joi.object({ a4: Joi.number().min(380).max(500).required() }).required(),
    })
    .required(),
});

export type EditsBody = { edits: readonly Edit[] };
export const editsBody = Joi.object<EditsBody>({ edits: editsSchema.required() });

export type WordsBody = { words: TakeWords };
export const wordsBody = Joi.object<WordsBody>({ words: wordsSchema.required() });

/** How a line that was written elsewhere is held against a chart of ours. */
export type ImportQuery = { chart: string; tempo: number; name: string };
export const importQuery = Joi.object<ImportQuery>({
  chart: idSchema,
  tempo: Joi.number().min(20).max(400).required(),
  name: Joi.string().min(1).max(120).required(),
});

/** What takes are chosen by; what is left out chooses nothing. Tempo and time are from–to, both included. */
export type TakeFilter = {
  readonly text?: string;
  readonly title?: string;
  readonly plan?: string;
  readonly key?: string;
  readonly finding?: string;
  readonly slowest?: number;
  readonly fastest?: number;
  readonly since?: number;
  readonly until?: number;
  readonly stars?: number;
};

/** What the list of takes is asked for, as an address has it. */
export type TakesQuery = TakeFilter & { from: number; most: number };
export const takesQuery = Joi.object<TakesQuery>({
  text: Joi.string().allow('').max(100),
  title: Joi.string().max(120),
  plan: Joi.string().valid(...PLAN_IDS),
  key: Joi.string().max(20),
  finding: Joi.string().pattern(/^[a-z-]{1,40}$/),
  slowest: Joi.number().min(1).max(1000),
  fastest: Joi.number().min(1).max(1000),
  since: Joi.number().integer().min(0),
  until: Joi.number().integer().min(0),
  stars: Joi.number().integer().min(1).max(5),
  from: Joi.number().integer().min(0).max(1e6).default(0),
  most: Joi.number().integer().min(1).max(100).default(40),
});

export type PatchTakeBody = { offsetSec?: number; plan?: PlanWords };
export const patchTakeBody = Joi.object<PatchTakeBody>({
  offsetSec: Joi.number().min(-600).max(600),
  plan: planSchema,
}).or('offsetSec', 'plan');

/** A plan in an address: what cannot be read is simply not there. */
export function planInAddress(text: string | undefined): PlanWords | null {
  if (text === undefined || text.length > 8_192) return null;
  try {
    const { error, value } = planSchema.validate(JSON.parse(text), { convert: false });
    return error || !planFromWords(value).ok ? null : value;
  } catch {
    return null;
  }
}

/** A drill to take up: of the catalogue, in the player's words, or what a finding of a take asks for. */
/** A finding by its kind and place: its order may have changed since it was read. */
export type FindingName = { kind: string; change?: string; chord?: string; tone?: ToneName };

export type NewDrillBody =
  | {
      chartId: string;
      kind: DrillKind;
      span?: [number, number];
      /** A kind of change, in the place of bars: where it is. */ change?: string;
      tempo?: number;
      plan?: PlanWords;
      phrase?: Motif;
    }
  | { chartId: string; words: string; tempo?: number; plan?: PlanWords }
  | { drillId: string; /** Half steps up. */ by: number }
  | { takeId: string; finding: FindingName };
const tempo = Joi.number().min(30).max(320);
const numbers = Joi.array().items(Joi.number().min(-48).max(64)).min(1).max(64).required();
export const newDrillBody = Joi.alternatives<NewDrillBody>(
  Joi.object({ drillId: idSchema, by: Joi.number().integer().min(-11).max(11).invalid(0).required() }),
  Joi.object({
    takeId: idSchema,
    finding: Joi.object({
      kind: Joi.string().max(40).required(),
      change: Joi.string().max(60),
      chord: Joi.string().max(24),
      tone: Joi.valid('root', 'third', 'fifth', 'seventh'),
    }).required(),
  }),
  Joi.object({ chartId: idSchema, words: Joi.string().max(400).required(), tempo, plan: planSchema }),
  Joi.object({
    chartId: idSchema,
    kind: Joi.string()
      .valid(...DRILL_KINDS)
      .required(),
    span: Joi.array().ordered(bar.required(), bar.required()),
    change: Joi.string().max(60),
    tempo,
    plan: planSchema,
    phrase: Joi.object<Motif>({
      gaps: numbers,
      moves: numbers,
      formula: Joi.array<FormulaNote[]>()
        .items(
          Joi.object({
            degree: Joi.number().integer().min(1).max(7).required(),
            alter: Joi.number().integer().min(-11).max(11).required(),
            octave: Joi.number().integer().min(-4).max(4).required(),
            above: Joi.number().integer().min(0).max(11),
          }),
        )
        .min(2)
        .max(65),
    }),
  }),
).required();

export type DrillChangeBody = {
  away?: boolean;
  goal?: number;
  up?: number;
  down?: number;
  tempo?: number;
  /** Days from today on which it comes back. */
  inDays?: number;
};
export const drillChangeBody = Joi.object<DrillChangeBody>({
  away: Joi.boolean(),
  goal: tempo,
  tempo,
  up: Joi.number().integer().min(1).max(5),
  down: Joi.number().integer().min(1).max(5),
  inDays: Joi.number().integer().min(0).max(LIMITS.daysAhead),
}).min(1);

export type RunBody = { takeId: string; sitting: string };
export const runBody = Joi.object<RunBody>({ takeId: idSchema, sitting: idSchema });

export type GoalBody = GoalWords | { none: true };
export const goalBody = Joi.alternatives<GoalBody>(
  Joi.object({ none: Joi.valid(true).required() }),
  goalSchema,
).required();

export type DiaryBody = { text: string };
export const diaryBody = Joi.object<DiaryBody>({ text: Joi.string().allow('').max(4_000).required() });

export const PHRASE_SOURCES = ['take', 'typed', 'file', 'drill', 'variation'] as const;
export type PhraseBody = {
  name: string;
  tags: string[];
  phrase: KeptPhrase;
  source: (typeof PHRASE_SOURCES)[number];
  take?: { id: string; beat: number };
};
export const phraseSchema = Joi.object<KeptPhrase>({
  chartText: Joi.string().max(4_000).required(),
  tempo: tempo.required(),
  notes: Joi.array<PhraseNote[]>()
    .items(
      Joi.object({
        onsetBeat: Joi.number().min(-8).max(200).required(),
        durationBeats: Joi.number().greater(0).max(64).required(),
        midi: Joi.number().integer().min(20).max(108).required(),
        position: Joi.number().integer().min(1).max(MOST_FRETS),
      }),
    )
    .min(2)
    .max(LIMITS.phrase.notes)
    .required(),
});
const phraseName = Joi.string().trim().min(1).max(LIMITS.phrase.name);
const phraseTags = Joi.array<string[]>()
  .items(Joi.string().trim().min(1).max(32))
  .max(LIMITS.phrase.tags)
  .unique();
export const phraseBody = Joi.object<PhraseBody>({
  name: phraseName.required(),
  tags: phraseTags.required(),
  phrase: phraseSchema.required(),
  source: Joi.valid(...PHRASE_SOURCES).required(),
  take: Joi.object({ id: idSchema, beat: Joi.number().min(-64).max(1e6).required() }),
}).required();

export type PhraseChangeBody = {
  name?: string;
  tags?: string[];
  removed?: boolean;
  /** Where the player has the hand: its lowest fret; null: where it is likeliest. */
  position?: number | null;
};
export const phraseChangeBody = Joi.object<PhraseChangeBody>({
  name: phraseName,
  tags: phraseTags,
  removed: Joi.boolean(),
  position: Joi.number().integer().min(1).max(MOST_FRETS).allow(null),
}).min(1);
