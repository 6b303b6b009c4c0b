/**
 * Names this server answers to. Anything else in Host is another site's name for this machine (DNS rebinding).
 */
const OWN_NAMES = new Set(['127.0.0.1', 'localhost', '[::1]']);
const SAFE_METHODS = new Set(['GET', 'HEAD', 'OPTIONS']);

export type GuardedRequest = {
  readonly method: string;
  readonly host: string | null;
  readonly origin: string | null;
  readonly site: string | null;
};

/**
 * Why a request must not be served, or null. Asked before any routing.
 * @param request `site` is Sec-Fetch-Site
 */
export function refusal({ method, host, origin, site }: GuardedRequest): string | null {
  if (host === null || !OWN_NAMES.has(nameOf(host)))
    return 'This address is not the one Idle Wander answers to. Open it at 127.0.0.1.';
  if (SAFE_METHODS.has(method)) return null;
  if (origin === null || !isOwnOrigin(origin, host))
    return 'This request came from another page and was not carried out.';
  return site === 'cross-site' ? 'This request came from another site and was not carried out.' : null;
}

const nameOf = (host: string): string => host.replace(/:\d+$/, '').toLowerCase();

function isOwnOrigin(origin: string, host: string): boolean {
  return origin === `http://${host}` || origin === `https://${host}`;
}
