/** What a request says of itself, by its line, its headers and the socket that it came through. */
export interface Asked {
  method: string;
  /** path and query */
  url: string;
  host?: string | undefined;
  origin?: string | undefined;
  /** Fetch Metadata, by every current browser: from where it was asked for, and as what */
  site?: string | undefined;
  mode?: string | undefined;
  target?: string | undefined;
}

export interface Refused {
  status: number;
  problem: string;
}

const METHODS = ['GET', 'HEAD', 'POST', 'PUT', 'PATCH', 'DELETE'];
export const ALLOW = METHODS.join(', ');
const READS = ['GET', 'HEAD'];
const LONGEST_URL = 2048;

/**
 * Who is let in, one rule for everything that is served: only by a name of ours (a foreign one that points here is a page of
 * somebody else, RFC 9110 4.2.3), only with methods that we know, changes only from our own pages, and nothing of ours within
 * pages of others, but for a link that is followed to it.
 * @param hosts names of ours with their port
 */
export function refusedAt(asked: Asked, hosts: ReadonlySet<string>): Refused | null {
  const { method, url, host, origin, site } = asked;
  if (!METHODS.includes(method)) return { status: 405, problem: 'This method is not known here.' };
  if (url.length > LONGEST_URL) return { status: 414, problem: 'The address is too long.' };
  if (!host || !hosts.has(host.toLowerCase()))
    return {
      status: 421,
      problem: 'Pebble Hall does not answer to this name. Start it with HOSTS=name to allow one.',
    };
  const path = pathOf(url);
  if (path === null) return { status: 400, problem: 'The address cannot be read.' };
  // what the framework brings and nothing of ours uses
  if (path.startsWith('/_') && !path.startsWith('/_astro/')) return { status: 404, problem: 'Not found.' };
  if (origin !== undefined && !isOwn(origin, host)) return foreign();
  if (READS.includes(method)) {
    const isLink =
      method === 'GET' && asked.mode === 'navigate' && asked.target === 'document' && !isApi(path);
    return site !== undefined && !['same-origin', 'none'].includes(site) && !isLink ? foreign() : null;
  }
  if (!isApi(path)) return { status: 405, problem: 'Pages are only read.' };
  return origin === undefined ? foreign() : null;
}

/** @returns as the router will see it; null when its percent signs are wrong */
function pathOf(url: string): string | null {
  try {
    return new URL(decodeURI(url), 'http://here').pathname.replace(/\/{2,}/g, '/');
  } catch {
    return null;
  }
}

const isApi = (path: string) => path === '/api' || path.startsWith('/api/');
const isOwn = (origin: string, host: string) =>
  ['http', 'https'].some((scheme) => origin.toLowerCase() === `${scheme}://${host.toLowerCase()}`);
const foreign = (): Refused => ({ status: 403, problem: 'This is answered to pages of Pebble Hall only.' });
