import {
  request as ask,
  type IncomingMessage,
  type OutgoingHttpHeaders,
  type ServerResponse,
} from 'node:http';
import { createServer, type Server } from 'node:https';
import type { Certificate } from './certificate';
import { DOOR_POLICY, doorPage } from './doorPage';
import { Door } from './passphrase';

/** With this prefix a browser sends it back to this very address, over TLS alone. */
const COOKIE = '__Host-idle-wander';
const DOOR = '/door';
const LONGEST_FORM = 1_024;
const SAFE = new Set(['GET', 'HEAD', 'OPTIONS']);
/** Headers that concern one connection, not the request (RFC 9110, “Connection”). */
const OF_CONNECTION = ['connection', 'keep-alive', 'proxy-connection', 'te', 'trailer', 'upgrade'];

/** Also what a proxy, or the framework itself, would say of a request: nobody outside says it here. */
const isOfTheWay = (name: string): boolean =>
  OF_CONNECTION.includes(name) || /^(x-forwarded-|x-middleware-|forwarded$|x-nonce$)/.test(name);

export type FrontOptions = {
  readonly certificate: Certificate;
  readonly passphrase: string;
  /** The port of this machine's own address at which the application listens. */
  readonly port: number;
  /** Names that other devices may call this machine by. */
  readonly names: readonly string[];
};

/**
 * What other devices in the house meet: TLS, a passphrase, and behind it the application, which goes on listening to
 * this machine alone. Everything else is refused before a byte of its body is read.
 */
export function lanFront({ certificate, passphrase, port, names }: FrontOptions): Server {
  const door = new Door(passphrase);
  const known = new Set(names);
  const server = createServer(
    { ...certificate, minVersion: 'TLSv1.2', headersTimeout: 10_000 },
    (request, response) => {
      const host = request.headers.host ?? '';
      if (!known.has(host.replace(/:\d+$/, '').toLowerCase()))
        return refuse(response, 403, 'This address is not the one Idle Wander answers to.');
      if (!SAFE.has(request.method ?? '') && !isOwn(request, host))
        return refuse(response, 403, 'This request came from another page and was not carried out.');
      const path = (request.url ?? '/').split('?')[0];
      if (path === DOOR) return void atTheDoor(door, request, response).catch(() => response.destroy());
      if (door.knows(sessionOf(request))) return pass(request, response, port);
      if (request.method === 'GET' && (request.headers.accept ?? '').includes('text/html'))
        return respond(response, 303, { location: DOOR, 'cache-control': 'no-store' });
      refuse(response, 401, 'The passphrase comes first.');
    },
  );
  return server;
}

function isOwn({ headers }: IncomingMessage, host: string): boolean {
  return headers.origin === `https://${host}` && headers['sec-fetch-site'] !== 'cross-site';
}

const sessionOf = ({ headers }: IncomingMessage): string | undefined =>
  (headers.cookie ?? '')
    .split(';')
    .map((pair) => pair.trim())
    .find((pair) => pair.startsWith(`${COOKIE}=`))
    ?.slice(COOKIE.length + 1);

async function atTheDoor(door: Door, request: IncomingMessage, response: ServerResponse): Promise<void> {
  const show = (status: number, said: Parameters<typeof doorPage>[0]) =>
    respond(
      response,
      status,
      {
        'content-type': 'text/html; charset=utf-8',
        'content-security-policy': DOOR_POLICY,
        // without a referrer a browser sends no origin with the form
        'referrer-policy': 'same-origin',
        'x-content-type-options': 'nosniff',
        'cache-control': 'no-store',
        ...(said === 'wait' && { 'retry-after': '60' }),
      },
      doorPage(said),
    );
  if (request.method !== 'POST') return show(200, 'ask');
  const knock = await door.knock(request.socket.remoteAddress ?? '', (await formOf(request)) ?? '');
  if (knock === 'wait') return show(429, 'wait');
  if (knock === 'wrong') return show(401, 'wrong');
  respond(response, 303, {
    location: '/',
    'set-cookie': `${COOKIE}=${door.admit()}; Path=/; Secure; HttpOnly; SameSite=Strict; Max-Age=2592000`,
    'cache-control': 'no-store',
  });
}

/** The passphrase of a posted form; null where the body is none. */
async function formOf(request: IncomingMessage): Promise<string | null> {
  const parts: Buffer[] = [];
  let length = 0;
  for await (const part of request as AsyncIterable<Buffer>) {
    length += part.length;
    if (length > LONGEST_FORM) return null;
    parts.push(part);
  }
  return new URLSearchParams(Buffer.concat(parts).toString('utf8')).get('passphrase');
}

/** Hands a request on as one of this machine's own, without its session, and the answer back. */
function pass(request: IncomingMessage, response: ServerResponse, port: number): void {
  const own = `127.0.0.1:${port}`;
  const { cookie: _session, origin, ...rest } = request.headers;
  const headers: OutgoingHttpHeaders = { ...rest, host: own, ...(origin && { origin: `http://${own}` }) };
  for (const name of Object.keys(headers)) if (isOfTheWay(name)) delete headers[name];
  const asked = ask(
    { host: '127.0.0.1', port, method: request.method, path: request.url, headers },
    (answer) => {
      const given: OutgoingHttpHeaders = { ...answer.headers };
      for (const name of Object.keys(given)) if (isOfTheWay(name)) delete given[name];
      const { location } = answer.headers;
      if (location?.startsWith(`http://${own}/`)) given['location'] = location.slice(`http://${own}`.length);
      response.writeHead(answer.statusCode ?? 502, given);
      answer.pipe(response);
    },
  );
  asked.on('error', () => {
    if (response.headersSent) response.destroy();
    else refuse(response, 502, 'Idle Wander does not answer on its computer.');
  });
  response.on('close', () => asked.destroy());
  request.pipe(asked);
}

function respond(response: ServerResponse, status: number, headers: OutgoingHttpHeaders, body = ''): void {
  response.writeHead(status, headers).end(body);
}

/** Said in the API's own form; the connection is closed, whatever was still to come. */
function refuse(response: ServerResponse, status: number, message: string): void {
  respond(
    response,
    status,
    {
      'content-type': 'application/json',
      'content-security-policy': "default-src 'none'; frame-ancestors 'none'",
      'cache-control': 'no-store',
      connection: 'close',
    },
    JSON.stringify({ error: { code: 'forbidden', message } }),
  );
}
