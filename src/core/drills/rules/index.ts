import { allOf, partsOf, type AllRule } from './all';
import { ANSWER, type AnswerRule } from './answer';
import { BORROW, type BorrowRule } from './borrow';
import { CROSS, type CrossRule } from './cross';
import { END, type EndRule } from './end';
import { FIGURE, type FigureRule } from './figure';
import { HEIGHT, type HeightRule } from './height';
import { HOME, type HomeRule } from './home';
import { JOIN, type JoinRule } from './join';
import { LAND, type LandRule } from './land';
import { LEAD, type LeadRule } from './lead';
import { LENGTH, type LengthRule } from './length';
import { MATERIAL, type MaterialRule } from './material';
import { MOTIF, type MotifRule } from './motif';
import { MOVES, type MovesRule } from './moves';
import { MUST, type MustRule } from './must';
import { PLACE, type PlaceRule } from './place';
import { RANGE, type RangeRule } from './range';
import { REGISTER, type RegisterRule } from './register';
import { RHYTHM, type RhythmRule } from './rhythm';
import { SHAPE, type ShapeRule } from './shape';
import { SPACE, type SpaceRule } from './space';
import { START, type StartRule } from './start';
import { STEADY, type SteadyRule } from './steady';
import { TIME, type TimeRule } from './time';
import { TRADE, type TradeRule } from './trade';
import { UP_AND_DOWN, type UpAndDownRule } from './upAndDown';
import { UPBEATS, type UpbeatsRule } from './upbeats';
import { VARY, type VaryRule } from './vary';
import type { Recipe } from '../recipe';
import type { RuleCheck } from '../rule';
import type { AttemptContext } from './context';
import type { RuleKind } from './ruleKind';

/** What a drill is passed by: one thing that can be heard, or two or three joined. */
export type Rule =
  | AllRule
  | MustRule
  | LeadRule
  | BorrowRule
  | SteadyRule
  | LengthRule
  | MovesRule
  | RegisterRule
  | RhythmRule
  | LandRule
  | FigureRule
  | JoinRule
  | MaterialRule
  | PlaceRule
  | ShapeRule
  | UpAndDownRule
  | EndRule
  | CrossRule
  | MotifRule
  | VaryRule
  | AnswerRule
  | HomeRule
  | TradeRule
  | TimeRule
  | RangeRule
  | HeightRule
  | UpbeatsRule
  | StartRule
  | SpaceRule;

type KindOf<K extends Rule['kind']> = RuleKind<Extract<Rule, { kind: K }>>;

/** Every kind of rule, by its name. */
const KINDS: { readonly [K in Rule['kind']]: KindOf<K> } = {
  all: allOf({ judge: (rule, attempt) => judgeRule(rule, attempt), words: (rule) => ruleWords(rule) }),
  must: MUST,
  lead: LEAD,
  borrow: BORROW,
  steady: STEADY,
  length: LENGTH,
  moves: MOVES,
  register: REGISTER,
  rhythm: RHYTHM,
  land: LAND,
  figure: FIGURE,
  join: JOIN,
  material: MATERIAL,
  place: PLACE,
  shape: SHAPE,
  'up-and-down': UP_AND_DOWN,
  end: END,
  cross: CROSS,
  motif: MOTIF,
  vary: VARY,
  answer: ANSWER,
  home: HOME,
  trade: TRADE,
  time: TIME,
  range: RANGE,
  height: HEIGHT,
  upbeats: UPBEATS,
  start: START,
  space: SPACE,
};

const kindOf = (rule: Rule): RuleKind<Rule> => KINDS[rule.kind];

/** How each place of an attempt went by a rule. */
export const judgeRule = (rule: Rule, attempt: AttemptContext): RuleCheck[] =>
  kindOf(rule).judge(rule, attempt);

/** A rule in a sentence, as it is said to a player. */
export const ruleWords = (rule: Rule): string => kindOf(rule).words(rule);

/** What is counted by a rule, in the plural. */
export const countedBy = (rule: Rule): string => kindOf(rule).counted(rule);

/** A recipe changed so that what is made by it passes the rule. */
export const recipeFor = (rule: Rule, recipe: Recipe): Recipe =>
  partsOf(rule).reduce((made, part) => kindOf(part).example?.(part, made) ?? made, recipe);

export type { AttemptContext } from './context';
export { mainPart, partsOf } from './all';
export { mustAt, type MustRule } from './must';
export { shapeOf, type Motif } from './motif';
