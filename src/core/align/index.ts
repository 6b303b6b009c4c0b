export { clickSound, clickTimes, LONGEST_DELAY } from './click';
export { AGREE_WITHIN, AGREEING, delayOfClick, latencyOf, type Latency } from './latency';
export { clappedLatency, strokesOf, type Clapped } from './clap';
export { pulseOf, tappedPulse, type Pulse } from './pulse';
