/** Sizes that are checked before anything is read. */
export const LIMITS = {
  /** A JSON body: the notes of a long take fit many times over. */
  jsonBytes: 4 * 1024 * 1024,
  /** A chart's text, by the same measure as the reader's own limit. */
  chartBytes: 256 * 1024,
  /** One chunk of PCM: a second and three quarters of 24 bits at 192 kHz. */
  chunkBytes: 1024 * 1024,
  /**
   * Chunks of one take: two and three quarter hours at half a second each, longer than any route can be
   * played.
   */
  chunks: 20_000,
  /** A file that becomes a take: an archive with half an hour of sound. */
  importBytes: 512 * 1024 * 1024,
} as const;
