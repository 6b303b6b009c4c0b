import { X509Certificate } from 'node:crypto';
import { chmod, mkdir, readFile, writeFile } from 'node:fs/promises';
import { hostname, networkInterfaces } from 'node:os';
import path from 'node:path';
import { generate } from 'selfsigned';

export type Certificate = { readonly key: string; readonly cert: string };

const DAY_MS = 86_400_000;
/** Browsers take no longer ones (CA/Browser Forum, from memory). */
const VALID_DAYS = 397;
const RENEWED_DAYS = 30;

/** The names this machine has in its own network: its addresses, and what it calls itself. */
export function ownNames(): readonly string[] {
  const addresses = Object.values(networkInterfaces())
    .flatMap((entries) => entries ?? [])
    .filter(({ internal, family }) => !internal && family === 'IPv4')
    .map(({ address }) => address);
  const name = hostname().toLowerCase();
  return [...new Set([...addresses, name, name.endsWith('.local') ? name : `${name}.local`])];
}

const isAddress = (name: string): boolean => /^[\d.]+$/.test(name);

async function made(names: readonly string[], now: number): Promise<Certificate> {
  const altNames = names.map((name) =>
    isAddress(name) ? { type: 7 as const, ip: name } : { type: 2 as const, value: name },
  );
  const { private: key, cert } = await generate([{ name: 'commonName', value: 'Idle Wander' }], {
    algorithm: 'sha256',
    keyType: 'ec',
    notBeforeDate: new Date(now - DAY_MS),
    notAfterDate: new Date(now + (VALID_DAYS - 1) * DAY_MS),
    extensions: [
      { name: 'basicConstraints', cA: false, critical: true },
      { name: 'extKeyUsage', serverAuth: true },
      { name: 'subjectAltName', altNames },
    ],
  });
  return { key, cert };
}

/** Does it hold for a month to come, and for every name? */
function stillGood({ cert }: Certificate, names: readonly string[], now: number): boolean {
  const read = new X509Certificate(cert);
  const holds = (name: string) => (isAddress(name) ? read.checkIP(name) : read.checkHost(name));
  return Date.parse(read.validTo) > now + RENEWED_DAYS * DAY_MS && names.every((name) => holds(name));
}

/**
 * A certificate of this machine's own for its names. It is kept, so that another device has to trust it once, and made
 * anew when it runs out or the addresses change.
 * @param file where it is kept, readable by its owner alone
 */
export async function certificateFor(
  names: readonly string[],
  file: string,
  now = Date.now(),
): Promise<Certificate> {
  const kept = await readFile(file, 'utf8')
    .then((text) => JSON.parse(text) as Certificate)
    .catch(() => null);
  try {
    if (kept && stillGood(kept, names, now)) return kept;
  } catch {
    // damaged: another is made
  }
  const fresh = await made(names, now);
  await mkdir(path.dirname(file), { recursive: true });
  await writeFile(file, JSON.stringify(fresh), { mode: 0o600 });
  await chmod(file, 0o600);
  return fresh;
}

/** The last bytes of its SHA-256 fingerprint, as a browser shows them. */
export const fingerprintOf = ({ cert }: Certificate): string =>
  new X509Certificate(cert).fingerprint256.slice(-11);
