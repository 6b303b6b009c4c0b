import { setTimeout as wait } from 'node:timers/promises';
import { sqliteCode } from '../backup/openFile';

/** How often a database that does not answer is asked again, and after how long the first and the later times. */
const TRIES = 8;
const FIRST_WAIT_MS = 100;
const LONGEST_WAIT_MS = 2000;
/** A server that says nothing for this long is taken for gone. */
const PATIENCE_MS = 15_000;

/** Codes of a connection that could not be made, or was lost on the way (Node and its fetch). */
const LOST = [
  'ECONNRESET',
  'ECONNREFUSED',
  'ECONNABORTED',
  'EPIPE',
  'ETIMEDOUT',
  'ENOTFOUND',
  'EAI_AGAIN',
  'UND_ERR_SOCKET',
  'UND_ERR_CONNECT_TIMEOUT',
  'UND_ERR_HEADERS_TIMEOUT',
  'UND_ERR_BODY_TIMEOUT',
];
/** What the client says where the server gave no answer of the database, or had let the transaction go. */
const GIVEN_UP = ['SERVER_ERROR', 'HRANA_PROTO_ERROR', 'HRANA_CLOSED_ERROR', 'TRANSACTION_CLOSED'];
const TAKEN = ['SQLITE_BUSY', 'SQLITE_LOCKED'];

/** May the same be tried again? Not where the database itself refused it. */
export function isPassing(error: unknown): boolean {
  if (typeof error !== 'object' || error === null) return false;
  const { code, name, cause } = error as { code?: unknown; name?: unknown; cause?: unknown };
  const sqlite = sqliteCode(error);
  if (sqlite !== null) return TAKEN.some((taken) => sqlite.startsWith(taken));
  if (name === 'TimeoutError') return true;
  if (typeof code === 'string' && (LOST.includes(code) || GIVEN_UP.includes(code))) return true;
  return isPassing(cause);
}

/** Tries `work` again, with longer and longer waits, for as long as it fails by what may pass. */
export async function persistently<T>(work: () => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries++) {
    try {
      return await work();
    } catch (error) {
      if (tries >= TRIES || !isPassing(error)) throw error;
      await wait(Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** (tries - 1)));
    }
  }
}

/** What the client sends: as much of it as is asked here. */
type Pipeline = {
  readonly baton?: string;
  readonly requests: readonly { readonly type: string; readonly stmt?: { readonly sql?: string } }[];
};
/** No question is as long as this; a piece of sound is. */
const LONGEST_QUESTION = 256 * 1024;

/** Outside of a transaction and only reading: it may be asked twice. */
function isOnlyReading(body: string): boolean {
  if (body.length > LONGEST_QUESTION) return false;
  const { baton, requests } = JSON.parse(body) as Pipeline;
  const reads = ({ type, stmt }: Pipeline['requests'][number]) =>
    type === 'close' || (type === 'execute' && /^\s*(select|pragma)\b/i.test(stmt?.sql ?? ''));
  return baton === undefined && requests.every(reads);
}

/**
 * Asks a database server; what only reads is asked again where the connection is lost. Writing is repeated as a
 * whole transaction: see `write`.
 * Source: “Hrana over HTTP”, version 2, the protocol of libSQL servers.
 */
export async function askServer(request: Request): Promise<Response> {
  const body = await request.text();
  const { url, method, headers } = request;
  const ask = () => fetch(url, { method, headers, body, signal: AbortSignal.timeout(PATIENCE_MS) });
  return isOnlyReading(body) ? persistently(ask) : ask();
}
