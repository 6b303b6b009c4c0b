export { Resampler, resample, concat } from './resample';
export { NormalisedDifference } from './difference';
export { SpectralFlux } from './flux';
export { HighPass } from './highPass';
export { steadyPitch, type SteadyPitch } from './pitch';
export { levelOf, peakOf, SILENCE } from './level';
export { SignalStore } from './store';
export { SpectrumReader, magnitudeNear, type Magnitudes } from './spectrum';
export { LeakRemover, alignmentOf, type LeakDelay } from './leak';
