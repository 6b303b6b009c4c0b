export { asPlayed } from './asPlayed';
export * from './notes/played';
export { analyseAligned, MOST_UNASKED_MS, type GridAlignment } from './alignment';
export { analyse, ENGINE_VERSION, type AnalysisRequest, type FigureReport, type Report } from './report';
export type { Summary } from './statistics/summary';
export type { NoteReport } from './noteFunctions/noteReport';
export {
  type ChangeReport,
  type Landing,
  type Timing,
  type Verdict,
  type Connection,
} from './changes/landings';
export type { ChordCoverage, IntervalCount } from './statistics/coverage';
export type { FunctionCoverage, WholeCoverage } from './statistics/coverageWhole';
export type { MissedResolution } from './changes/missedResolutions';
export type { ThirdHeard } from './statistics/thirds';
export { isLateHandover } from './impliedHarmony/handovers';
export type { HitFit } from './impliedHarmony/hitFit';
export type { BarKind, BarReport, Handover } from './impliedHarmony/handovers';
export type { Phrase, PhraseEnd } from './phrases/phrases';
export type { HeardBy, MutedBand, Segment } from './impliedHarmony/mutedBand';
export type { Turning } from './changes/turnings';
export {
  TENSION_LEVEL,
  type Tier,
  type TensionLevel,
  type NoteFunction,
  type Flag,
  type NoteSpan,
} from './notes/voice';
export type { ChorusLean, Lean } from './time/lean';
export type { Drift } from './time/drift';
export type { EighthTime, TimeReport } from './statistics/timing';
export type { LineReport } from './statistics/lineShape';
export type { ChorusCurve } from './statistics/tensionCurve';
export type { StepOut } from './noteFunctions/stepOuts';
export { windowsAt, type Windows } from './notes/windows';
export { type LandingMark } from './changes/landingMark';
export { landingMark } from './changes/landingMark';
export { togetherOf, type Together } from './impliedHarmony/together';
