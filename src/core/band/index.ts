export { arrange, type ArrangeRequest } from './arrange';
export { BAND_PARTS, type BandEvent, type BandPart } from './events';
export { bandFeel, offBeat, type BandFeel } from './feel';
export { renderBand, type Mix, type RenderRequest } from './render';
export { improvise, type ImproviseRequest } from './standIn/improvise';
export { perform } from './standIn/perform';
export { STEADY, type Profile } from './standIn/profile';
export { pluckString } from './pluckedString';
export { chordSound, chordsUnder, excerpt, scaleSound, threadSound, type StudySound } from './studySounds';
