import { sql } from 'drizzle-orm';
import {
  type AnySQLiteColumn,
  blob,
  index,
  integer,
  primaryKey,
  real,
  sqliteTable,
  text,
} from 'drizzle-orm/sqlite-core';

/** What stopped a take from being judged. A newer engine tries again. */
export type TakeTrouble = { readonly engineVersion: number; readonly message: string };

const createdAt = () =>
  integer()
    .notNull()
    .default(sql`(unixepoch() * 1000)`);

/** Charts as text: what the player typed is what is kept. */
export const charts = sqliteTable('charts', {
  id: text().primaryKey(),
  title: text().notNull(),
  text: text().notNull(),
  createdAt: createdAt(),
  updatedAt: createdAt(),
  /** When the chart was put in the trash; null where it was not. */
  removedAt: integer(),
});

/** What a chart said before: kept when a text that stood for a while is changed, and when it is turned back. */
export const chartVersions = sqliteTable(
  'chart_versions',
  {
    id: text().primaryKey(),
    chartId: text()
      .notNull()
      .references(() => charts.id, { onDelete: 'cascade' }),
    text: text().notNull(),
    /** When this text was last the chart's own. */
    createdAt: createdAt(),
  },
  (table) => [index('versions_by_chart').on(table.chartId, table.createdAt)],
);

/** A take keeps a frozen copy of its chart and plan: it stays true when the chart is edited later. */
export const takes = sqliteTable(
  'takes',
  {
    id: text().primaryKey(),
    chartId: text().references(() => charts.id, { onDelete: 'set null' }),
    title: text().notNull(),
    /** Counts from 1 over all takes, for people to say. */
    number: integer().notNull().unique(),
    /** `recording` until its last chunk and notes are in, then `ready`. */
    state: text({ enum: ['recording', 'ready'] }).notNull(),
    source: text({ enum: ['microphone', 'file', 'stand-in'] }).notNull(),
    chartText: text().notNull(),
    tempo: real().notNull(),
    choruses: integer().notNull(),
    plan: text({ mode: 'json' }).notNull(),
    /** Of the plan, for choosing takes by. */
    planId: text().generatedAlwaysAs(sql`json_extract(plan, '$.id')`, { mode: 'virtual' }),
    /** How the tempo moves from pass to pass; null where it does not. */
    pace: text({ mode: 'json' }),
    rate: integer().notNull(),
    /** Bits a sample has: what the player sent is what comes back. */
    bits: integer().notNull().default(16),
    frames: integer().notNull().default(0),
    /** Where beat 0 lies in the audio, in seconds, latency included. */
    offsetSec: real().notNull().default(0),
    /**
     * What was heard through, and the latency that was counted for it, in seconds; null where nobody measured.
     */
    device: text(),
    latencySec: real(),
    /** Where the band left the player alone, as `DropOut`; null where it never did. */
    dropOut: text({ mode: 'json' }),
    /** The drill this was an attempt at; null for a solo. */
    drillId: text().references((): AnySQLiteColumn => drills.id, { onDelete: 'set null' }),
    /**
     * When the sound was put in the trash to make room; notes and reports stay, and the sound itself for
     * thirty days.
     */
    soundGoneAt: integer(),
    /** When the take was put in the trash; null where it was not. */
    removedAt: integer(),
    /** Why this take cannot be judged, and by which engine; null where it can, or was not tried. */
    trouble: text({ mode: 'json' }).$type<TakeTrouble>(),
    createdAt: createdAt(),
  },
  (table) => [
    index('takes_by_time').on(table.createdAt),
    index('takes_by_state').on(table.state, table.createdAt),
    index('takes_by_plan').on(table.planId),
    index('takes_by_title').on(table.title),
  ],
);

/**
 * Mono sound in order, without loss; each chunk with the SHA-256 of its little-endian PCM. `pcm` holds it
 * coded as `codec` says.
 */
export const audioChunks = sqliteTable(
  'audio_chunks',
  {
    takeId: text()
      .notNull()
      .references(() => takes.id, { onDelete: 'cascade' }),
    sequence: integer().notNull(),
    frames: integer().notNull(),
    /** First frame of the chunk in the take, so that a range can be found without reading the sound. */
    firstFrame: integer().notNull(),
    checksum: text().notNull(),
    codec: text({ enum: ['pcm', 'flac'] })
      .notNull()
      .default('pcm'),
    pcm: blob({ mode: 'buffer' }).notNull(),
  },
  (table) => [primaryKey({ columns: [table.takeId, table.sequence] })],
);

/** What was heard; never overwritten by hand edits, which are a layer over it. */
export const notes = sqliteTable('notes', {
  takeId: text()
    .primaryKey()
    .references(() => takes.id, { onDelete: 'cascade' }),
  json: text({ mode: 'json' }).notNull(),
  createdAt: createdAt(),
});

/** The player's hand over what was heard: edits in order, whole. */
export const takeEdits = sqliteTable('take_edits', {
  takeId: text()
    .primaryKey()
    .references(() => takes.id, { onDelete: 'cascade' }),
  json: text({ mode: 'json' }).notNull(),
  updatedAt: createdAt(),
});

/** The player's words on a take; `search` is their text in small letters. */
export const takeWords = sqliteTable(
  'take_words',
  {
    takeId: text()
      .primaryKey()
      .references(() => takes.id, { onDelete: 'cascade' }),
    json: text({ mode: 'json' }).notNull(),
    stars: integer().generatedAlwaysAs(sql`json_extract(json, '$.stars')`, { mode: 'virtual' }),
    search: text().notNull(),
    updatedAt: createdAt(),
  },
  (table) => [index('words_by_stars').on(table.stars)],
);

/** Derived from notes, chart and plan: keyed by engine version, recomputable, safe to delete. */
export const reports = sqliteTable(
  'reports',
  {
    takeId: text()
      .notNull()
      .references(() => takes.id, { onDelete: 'cascade' }),
    planId: text().notNull(),
    engineVersion: integer().notNull(),
    offsetSec: real().notNull(),
    json: text({ mode: 'json' }).notNull(),
  },
  (table) => [primaryKey({ columns: [table.takeId, table.planId] })],
);

/** What the player has set, one JSON document a name. */
export const settings = sqliteTable('settings', {
  name: text().primaryKey(),
  json: text({ mode: 'json' }).notNull(),
});

/** What the list of takes shows of each: derived with its report, so that a long list is one quick question. */
export const takeLines = sqliteTable(
  'take_lines',
  {
    takeId: text()
      .primaryKey()
      .references(() => takes.id, { onDelete: 'cascade' }),
    engineVersion: integer().notNull(),
    offsetSec: real().notNull(),
    planId: text().notNull(),
    json: text({ mode: 'json' }).notNull(),
    key: text().generatedAlwaysAs(sql`json_extract(json, '$.key')`, { mode: 'virtual' }),
  },
  (table) => [index('lines_by_key').on(table.key)],
);

/** What was found in each take, for choosing takes by: derived with the line above. */
export const takeFindings = sqliteTable(
  'take_findings',
  {
    takeId: text()
      .notNull()
      .references(() => takes.id, { onDelete: 'cascade' }),
    kind: text().notNull(),
  },
  (table) => [primaryKey({ columns: [table.takeId, table.kind] }), index('findings_by_kind').on(table.kind)],
);

/** Something small that is being learnt: the drill with its bars frozen, its tempo ladder, and when it is due. */
export const drills = sqliteTable(
  'drills',
  {
    id: text().primaryKey(),
    chartId: text().references(() => charts.id, { onDelete: 'set null' }),
    /** Title of the chart, for people to say. */
    title: text().notNull(),
    /** The same drill over the same bars has the same key: it is taken up again, not begun twice. */
    key: text().notNull().unique(),
    json: text({ mode: 'json' }).notNull(),
    ladder: text({ mode: 'json' }).notNull(),
    /** What the scheduler knows of it; null before its first run. */
    memory: text({ mode: 'json' }),
    dueAt: integer().notNull(),
    /** When the player put it on the day it is due; null where the scheduler did. */
    movedAt: integer(),
    /** When it was put away; null while it comes back. */
    awayAt: integer(),
    createdAt: createdAt(),
  },
  (table) => [index('drills_by_due').on(table.awayAt, table.dueAt)],
);

/** One attempt at a drill, with what was met at each kind of change. */
export const drillRuns = sqliteTable(
  'drill_runs',
  {
    id: text().primaryKey(),
    drillId: text()
      .notNull()
      .references(() => drills.id, { onDelete: 'cascade' }),
    takeId: text().references(() => takes.id, { onDelete: 'set null' }),
    /** Attempts of one sitting share its name. */
    sitting: text().notNull(),
    tempo: real().notNull(),
    met: integer().notNull(),
    of: integer().notNull(),
    passed: integer({ mode: 'boolean' }).notNull(),
    seconds: real().notNull(),
    json: text({ mode: 'json' }).notNull(),
    createdAt: createdAt(),
  },
  (table) => [
    index('runs_by_drill').on(table.drillId, table.createdAt),
    index('runs_by_time').on(table.createdAt),
  ],
);

/** The player's own words on a day of practice, by date (`2026-11-26`, the player's own time). */
export const diaryWords = sqliteTable('diary_words', {
  day: text().primaryKey(),
  text: text().notNull(),
  updatedAt: createdAt(),
});

/** A phrase of the player's own vocabulary, over the bars it was played over. */
export const phrases = sqliteTable(
  'phrases',
  {
    id: text().primaryKey(),
    name: text().notNull(),
    tags: text({ mode: 'json' }).notNull(),
    json: text({ mode: 'json' }).notNull(),
    /** Where it comes from; the take's id is forgotten with the take. */
    source: text().notNull(),
    takeId: text().references(() => takes.id, { onDelete: 'set null' }),
    takeBeat: real(),
    createdAt: createdAt(),
    /** When it was removed; null while it is kept. */
    removedAt: integer(),
  },
  (table) => [index('phrases_by_time').on(table.removedAt, table.createdAt)],
);

/**
 * Writes to a database on a server that were completed, by a name the writer gave them: an answer that is lost on
 * the way leaves it to the next try whether there is anything left to do. Kept for a day.
 */
export const completedWrites = sqliteTable('completed_writes', {
  id: text().primaryKey(),
  at: integer().notNull(),
});

/** The line of each take as phrases are searched in it: derived from its report, safe to delete. */
export const searchedLines = sqliteTable('searched_lines', {
  takeId: text()
    .primaryKey()
    .references(() => takes.id, { onDelete: 'cascade' }),
  engineVersion: integer().notNull(),
  json: text({ mode: 'json' }).notNull(),
  /** When it was made: a line that was read before is known again by it. */
  madeAt: integer().notNull(),
});
