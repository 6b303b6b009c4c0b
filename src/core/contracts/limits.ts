/**
 * How large, long, many and deep what comes in may be: well past anything people play, well below what would stall a
 * screen or fill a memory. Errors say them, docs/limits.md lists them, and each is tested at its edge and one past it.
 */
export const LIMITS = {
  /** A chart's text. */
  chart: { characters: 65_536, bars: 512, chordsPerBar: 16 },
  /** Beats a minute at which a route or a drill may be played. */
  tempo: [40, 320],
  /** Notes in a file of notes, and in a line of MusicXML. */
  notes: { file: 250_000, musicxml: 50_000, playedAgain: 500 },
  midi: { events: 2_000_000, bars: 2_000 },
  musicxml: { characters: 8_000_000, depth: 40, measures: 2_000 },
  wav: { channels: 2, seconds: 45 * 60, lowestRate: 4_000, highestRate: 384_000 },
  /** A take in a file, unpacked: its sound, and what was written about it. */
  archive: { bytes: 512 * 1024 * 1024, documentBytes: 16 * 1024 * 1024 },
  phrase: { notes: 200, bars: 16, name: 80, tags: 12, phrases: 2000 },
  goal: { tunes: 24 },
  daysAhead: 120,
  /** Bodies of requests, checked before anything is read. */
  request: {
    /** The notes of a long take fit many times over. */
    jsonBytes: 4 * 1024 * 1024,
    /** By the same measure as a chart's own limit. */
    chartBytes: 256 * 1024,
    /** One chunk of PCM: a second and three quarters of 24 bits at 192 kHz. */
    chunkBytes: 1024 * 1024,
    /** Of one take: two and three quarter hours at half a second each, longer than any route can be played. */
    chunks: 20_000,
    /** A file that becomes a take: an archive with half an hour of sound. */
    importBytes: 512 * 1024 * 1024,
  },
} as const;
