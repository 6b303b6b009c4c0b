export { arrange, CLICK_BEATS, type ArrangeRequest, type ClickBeats } from './arrange';
export { bandRests, type DropOut } from './dropOut';
export { BAND_PARTS, type BandEvent, type BandPart } from './events';
export {
  BAND_FEELS,
  bandFeel,
  lineupOf,
  offBeat,
  type BandFeel,
  type ChordInstrument,
  type Lineup,
} from './feel';
export { Instruments } from './instruments';
export { renderBand, renderPart, softened, type Mix, type RenderRequest, type Window } from './render';
export { ENDING_BEATS } from './ending';
export { improvise, type ImproviseRequest } from './standIn/improvise';
export { perform } from './standIn/perform';
export { CHARACTERS, STEADY, type StandInCharacter, type StandInProfile } from './standIn/profile';
export { pluckString } from './pluckedString';
export { chordSound, chordsUnder, scaleSound, threadSound, type StudySound } from './studySounds';
