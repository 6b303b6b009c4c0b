export * from './played';
export { analyse, ENGINE_VERSION, type AnalysisRequest, type Report, type FigureReport, type Summary } from './report';
export type { NoteReport } from './noteReport';
export { gateMark, type ChangeReport, type GateMark, type Landing, type Timing, type Verdict, type Connection } from './landings';
export type { ChordCoverage, IntervalCount } from './coverage';
export type { Phrase, PhraseEnd } from './phrases';
export type { MutedBand, Segment } from './mutedBand';
export { HEIGHT, type Tier, type Height, type NoteFunction, type Flag, type Span } from './voice';
export { windowsAt, type Windows } from './windows';
