/** Sizes that are checked before anything is read. */
export const LIMITS = {
  /** A JSON body: the notes of a long take fit many times over. */
  jsonBytes: 4 * 1024 * 1024,
  /** A chart's text, by the same measure as the reader's own limit. */
  chartBytes: 256 * 1024,
  /** One chunk of 16-bit PCM: four seconds at 96 kHz and a little. */
  chunkBytes: 1024 * 1024,
  /** Chunks of one take: three quarters of an hour at a second each, and a little. */
  chunks: 3_000,
} as const;
