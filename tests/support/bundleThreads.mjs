import { bundleThreads } from '../../scripts/bundle.mjs';

/** Takes are judged in a thread that runs a bundle: tests must not judge by an old one. */
export default bundleThreads;
