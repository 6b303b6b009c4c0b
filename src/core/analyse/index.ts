export * from './notes/played';
export { analyseAligned, MOST_UNASKED_MS, type Alignment } from './alignment';
export { analyse, ENGINE_VERSION, type AnalysisRequest, type Report, type FigureReport } from './report';
export type { Summary } from './whole/summary';
export type { NoteReport } from './deeds/noteReport';
export {
  gateMark,
  type ChangeReport,
  type GateMark,
  type Landing,
  type Timing,
  type Verdict,
  type Connection,
} from './changes/landings';
export type { ChordCoverage, IntervalCount } from './whole/coverage';
export type { FunctionCoverage, WholeCoverage } from './whole/coverageWhole';
export type { MissedDoor } from './changes/doors';
export type { ThirdHeard } from './whole/thirds';
export type { BarKind, BarReport, Handover } from './heard/handovers';
export type { Phrase, PhraseEnd } from './phrases/phrases';
export type { HeardBy, MutedBand, Segment } from './heard/mutedBand';
export type { Turning } from './changes/turnings';
export { HEIGHT, type Tier, type Height, type NoteFunction, type Flag, type Span } from './notes/voice';
export type { EighthTime, TimeReport } from './whole/timing';
export type { LineReport } from './whole/lineShape';
export type { ChorusArc } from './whole/arc';
export type { StepOut } from './deeds/stepOuts';
export { windowsAt, type Windows } from './notes/windows';
