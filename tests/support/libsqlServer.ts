import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { setTimeout as wait } from 'node:timers/promises';
import Database from 'libsql';

/** What may be said of a connection: how late its answer comes, and whether it breaks before or after the work. */
type Weather = {
  readonly delayMs?: number;
  readonly breaks?: (request: number) => 'before' | 'after' | null;
};

type SentValue =
  | { readonly type: 'null' }
  | { readonly type: 'integer'; readonly value: string }
  | { readonly type: 'float'; readonly value: number }
  | { readonly type: 'text'; readonly value: string }
  | { readonly type: 'blob'; readonly base64: string };
type SentStatement = {
  readonly sql?: string;
  readonly sql_id?: number;
  readonly args?: readonly SentValue[];
  readonly named_args?: readonly { readonly name: string; readonly value: SentValue }[];
};
type Condition =
  | { readonly type: 'ok' | 'error'; readonly step: number }
  | { readonly type: 'not'; readonly cond: Condition }
  | { readonly type: 'and' | 'or'; readonly conds: readonly Condition[] };
type SentRequest = {
  readonly type: string;
  readonly stmt?: SentStatement;
  readonly batch?: {
    readonly steps: readonly { readonly stmt: SentStatement; readonly condition?: Condition }[];
  };
  readonly sql?: string;
  readonly sql_id?: number;
};

/** So long a connection may be idle, also on a busy machine, and one whose last answer was lost. */
const IDLE_MS = 2000;
const LOST_MS = 300;
const WRITES = /^\s*(insert|update|delete|replace|create|alter|drop|begin immediate)\b/i;

/** One connection to the database, for as long as its stream lasts. */
type Stream = {
  readonly database: Database.Database;
  readonly texts: Map<number, string>;
  release: (() => void) | null;
};

/**
 * A small stand-in for a libSQL server over a file of this machine, in any weather. It speaks version 2 of
 * “Hrana over HTTP” (libSQL's docs/HRANA_2_SPEC.md) as far as its client uses it: streams with batons, one writer
 * at a time, an error for each request that fails.
 */
export class LibsqlServer {
  requests = 0;
  /**
   * How many requests had to wait for one another since this was last set to 0: those that are under way together are
   * one turn.
   */
  turns = 0;
  private server: Server | null = null;
  private readonly streams = new Map<string, Stream>();
  private batons = 0;
  private writing: Promise<void> = Promise.resolve();

  constructor(
    private readonly file: string,
    private readonly token: string,
    public weather: Weather = {},
  ) {}

  async start(port = 0): Promise<string> {
    this.server = createServer((request, response) => void this.answer(request, response));
    const { server } = this;
    await new Promise<void>((done) => server.listen(port, '127.0.0.1', done));
    return `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
  }

  async stop(): Promise<void> {
    this.server?.closeAllConnections();
    await new Promise((done) => (this.server ? this.server.close(done) : done(null)));
    for (const stream of this.streams.values()) close(stream);
    this.streams.clear();
  }

  private async answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
    const turn = this.turns + 1;
    response.on('close', () => (this.turns = Math.max(this.turns, turn)));
    const parts: Buffer[] = [];
    for await (const part of request) parts.push(part as Buffer);
    const number = this.requests++;
    const breaks = this.weather.breaks?.(number) ?? null;
    await wait(this.weather.delayMs ?? 0);
    if (breaks === 'before') return void request.socket.destroy();
    const say = (status: number, json: unknown) => {
      if (breaks === 'after') request.socket.destroy();
      else response.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify(json));
    };
    if (request.headers.authorization !== `Bearer ${this.token}`)
      return say(401, { message: 'Unauthorized' });
    const { baton, requests } = JSON.parse(Buffer.concat(parts).toString('utf8')) as {
      baton?: string;
      requests: readonly SentRequest[];
    };
    const stream = baton === undefined ? this.open() : this.streams.get(baton);
    if (!stream) return say(400, { message: 'The stream has expired.' });
    if (baton !== undefined) this.streams.delete(baton);
    const results: unknown[] = [];
    let isOpen = true;
    for (const one of requests) {
      results.push(await this.handled(stream, one));
      if (one.type === 'close') isOpen = false;
    }
    const next = isOpen ? `baton ${this.batons++}` : null;
    if (next !== null) this.keep(next, stream, breaks === 'after' ? LOST_MS : IDLE_MS);
    say(200, { baton: next, base_url: null, results });
  }

  private open(): Stream {
    const database = new Database(this.file).defaultSafeIntegers(true);
    database.pragma('journal_mode = WAL');
    return { database, texts: new Map(), release: null };
  }

  /** A stream that nobody comes back to is closed, and what it had begun undone. */
  private keep(baton: string, stream: Stream, idleMs: number): void {
    this.streams.set(baton, stream);
    setTimeout(() => {
      if (this.streams.delete(baton)) close(stream);
    }, idleMs).unref();
  }

  private async handled(stream: Stream, request: SentRequest): Promise<unknown> {
    try {
      return { type: 'ok', response: { type: request.type, ...(await this.result(stream, request)) } };
    } catch (error) {
      const { message, code } = error as Error & { code?: string };
      return { type: 'error', error: { message, code } };
    }
  }

  private async result(stream: Stream, request: SentRequest): Promise<object> {
    switch (request.type) {
      case 'execute':
        return { result: await this.execute(stream, request.stmt ?? {}) };
      case 'batch':
        return { result: await this.batch(stream, request.batch?.steps ?? []) };
      case 'sequence':
        stream.database.exec(textOf(stream, request));
        return {};
      case 'store_sql':
        stream.texts.set(request.sql_id ?? 0, request.sql ?? '');
        return {};
      case 'close_sql':
        stream.texts.delete(request.sql_id ?? 0);
        return {};
      case 'close':
        close(stream);
        return {};
      default:
        throw new Error(`Not spoken here: ${request.type}.`);
    }
  }

  private async batch(
    stream: Stream,
    steps: readonly { readonly stmt: SentStatement; readonly condition?: Condition }[],
  ): Promise<object> {
    const results: unknown[] = [];
    const errors: unknown[] = [];
    const holds = (condition: Condition): boolean => {
      switch (condition.type) {
        case 'ok':
          return results[condition.step] !== null && results[condition.step] !== undefined;
        case 'error':
          return errors[condition.step] !== null && errors[condition.step] !== undefined;
        case 'not':
          return !holds(condition.cond);
        case 'and':
          return condition.conds.every(holds);
        case 'or':
          return condition.conds.some(holds);
      }
    };
    for (const { stmt, condition } of steps) {
      const isAsked = !condition || holds(condition);
      const outcome = isAsked
        ? await this.execute(stream, stmt).then(
            (result) => ({ result, error: null }),
            ({ message, code }: Error & { code?: string }) => ({ result: null, error: { message, code } }),
          )
        : { result: null, error: null };
      results.push(outcome.result);
      errors.push(outcome.error);
    }
    return { step_results: results, step_errors: errors };
  }

  /** One writer at a time: whoever comes later waits for the end of its transaction. */
  private async execute(stream: Stream, statement: SentStatement): Promise<object> {
    const sql = textOf(stream, statement);
    if (WRITES.test(sql) && !stream.release) {
      const before = this.writing;
      let release = (): void => undefined;
      this.writing = new Promise((done) => (release = done));
      await before;
      stream.release = release;
    }
    try {
      return run(stream.database, sql, statement);
    } finally {
      if (!stream.database.inTransaction) {
        stream.release?.();
        stream.release = null;
      }
    }
  }
}

function run(
  database: Database.Database,
  sql: string,
  { args = [], named_args = [] }: SentStatement,
): object {
  const bound =
    named_args.length > 0
      ? [
          Object.fromEntries(
            named_args.map(({ name, value }) => [name.replace(/^[:@$]/, ''), received(value)]),
          ),
        ]
      : args.map(received);
  const statement = database.prepare(sql);
  if (!statement.reader) {
    const { changes, lastInsertRowid } = statement.run(...bound);
    return { cols: [], rows: [], affected_row_count: changes, last_insert_rowid: String(lastInsertRowid) };
  }
  const columns = statement.columns();
  const rows = statement.raw(true).all(...bound) as unknown[][];
  return {
    cols: columns.map(({ name, type }) => ({ name, decltype: type })),
    rows: rows.map((row) => row.map(sentValue)),
    affected_row_count: 0,
    last_insert_rowid: null,
  };
}

function close(stream: Stream): void {
  if (stream.database.inTransaction) stream.database.exec('ROLLBACK');
  stream.database.close();
  stream.release?.();
  stream.release = null;
}

const textOf = ({ texts }: Stream, { sql, sql_id }: SentStatement): string =>
  sql ?? texts.get(sql_id ?? -1) ?? '';

function received(value: SentValue): unknown {
  switch (value.type) {
    case 'null':
      return null;
    case 'integer':
      return BigInt(value.value);
    case 'float':
    case 'text':
      return value.value;
    case 'blob':
      return Buffer.from(value.base64, 'base64');
  }
}

function sentValue(value: unknown): SentValue {
  if (value === null) return { type: 'null' };
  if (typeof value === 'bigint') return { type: 'integer', value: String(value) };
  if (typeof value === 'number') return { type: 'float', value };
  if (typeof value === 'string') return { type: 'text', value };
  return { type: 'blob', base64: Buffer.from(value as Uint8Array).toString('base64') };
}
