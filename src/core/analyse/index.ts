export * from './notes/played';
export { analyseAligned, MOST_UNASKED_MS, type GridAlignment } from './alignment';
export { analyse, ENGINE_VERSION, type AnalysisRequest, type Report, type FigureReport } from './report';
export type { Summary } from './whole/summary';
export type { NoteReport } from './deeds/noteReport';
export {
  landingMark,
  type ChangeReport,
  type LandingMark,
  type Landing,
  type Timing,
  type Verdict,
  type Connection,
} from './changes/landings';
export type { ChordCoverage, IntervalCount } from './whole/coverage';
export type { FunctionCoverage, WholeCoverage } from './whole/coverageWhole';
export type { MissedResolution } from './changes/doors';
export type { ThirdHeard } from './whole/thirds';
export type { BarKind, BarReport, Handover } from './heard/handovers';
export type { Phrase, PhraseEnd } from './phrases/phrases';
export type { HeardBy, MutedBand, Segment } from './heard/mutedBand';
export type { Turning } from './changes/turnings';
export { TENSION_LEVEL, type Tier, type TensionLevel, type NoteFunction, type Flag, type NoteSpan } from './notes/voice';
export type { EighthTime, TimeReport } from './whole/timing';
export type { LineReport } from './whole/lineShape';
export type { ChorusCurve } from './whole/arc';
export type { StepOut } from './deeds/stepOuts';
export { windowsAt, type Windows } from './notes/windows';
