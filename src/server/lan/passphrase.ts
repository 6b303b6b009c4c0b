import { randomBytes, randomInt, scrypt, timingSafeEqual } from 'node:crypto';

/** Shorter ones are guessed too soon. */
export const SHORTEST_PASSPHRASE = 12;
/** Longer bodies are no passphrase. */
const LONGEST = 200;

/** Letters and digits that are not taken for one another. */
const SIGNS = 'abcdefghjkmnpqrstuvwxyz23456789';

/** A passphrase nobody has to think of: three groups of four, nearly 60 bits. */
export const newPassphrase = (): string =>
  Array.from({ length: 3 }, () =>
    Array.from({ length: 4 }, () => SIGNS.charAt(randomInt(SIGNS.length))).join(''),
  ).join('-');

/** Cost of scrypt: 2^15 rounds of 8 blocks take a tenth of a second and 32 MB (RFC 7914; OWASP's cheat sheet on password storage, from memory). */
const COST = { N: 2 ** 15, r: 8, p: 1, maxmem: 64 * 1024 * 1024 };

const hashOf = (words: string, salt: Buffer): Promise<Buffer> =>
  new Promise((resolve, reject) => {
    scrypt(words.normalize('NFKC'), salt, 32, COST, (error, hash) => (error ? reject(error) : resolve(hash)));
  });

const MINUTE_MS = 60_000;
/** Wrong passphrases a minute: from one address, and from all. */
const MOST_WRONG = { each: 5, all: 20 };
const SESSION_MS = 30 * 24 * 60 * MINUTE_MS;
const MOST_SESSIONS = 200;

type Wrong = { readonly from: string; readonly at: number };
export type Knock = 'open' | 'wrong' | 'wait';

/** Who may come in: keeps a hash of the passphrase, who tried in vain lately, and the sessions that are open. */
export class Door {
  private readonly salt = randomBytes(16);
  private readonly hash: Promise<Buffer>;
  private wrong: Wrong[] = [];
  private readonly sessions = new Map<string, number>();

  constructor(
    passphrase: string,
    private readonly now: () => number = Date.now,
  ) {
    this.hash = hashOf(passphrase, this.salt);
  }

  /** @param from the address that asks */
  async knock(from: string, words: string): Promise<Knock> {
    if (this.mustWait(from)) return 'wait';
    // counted before it is known: those who ask at once are counted too
    const attempt: Wrong = { from, at: this.now() };
    this.wrong.push(attempt);
    if (words.length > LONGEST) return 'wrong';
    if (!timingSafeEqual(await hashOf(words, this.salt), await this.hash)) return 'wrong';
    this.wrong = this.wrong.filter((one) => one !== attempt);
    return 'open';
  }

  /** A session's name, which only the browser that gets it knows. */
  admit(): string {
    const token = randomBytes(32).toString('base64url');
    this.sessions.set(token, this.now() + SESSION_MS);
    const [oldest] = this.sessions.keys();
    if (this.sessions.size > MOST_SESSIONS && oldest !== undefined) this.sessions.delete(oldest);
    return token;
  }

  knows(token: string | undefined): boolean {
    const until = token === undefined ? undefined : this.sessions.get(token);
    return until !== undefined && until > this.now();
  }

  private mustWait(from: string): boolean {
    const since = this.now() - MINUTE_MS;
    this.wrong = this.wrong.filter(({ at }) => at > since);
    const own = this.wrong.filter((one) => one.from === from).length;
    return own >= MOST_WRONG.each || this.wrong.length >= MOST_WRONG.all;
  }
}
