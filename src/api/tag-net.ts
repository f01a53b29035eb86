import type { TagQuestion } from './tags.js';
import { decodeXml } from '../core/formats/xml/decode.js';
import { ask, portOf, TooLargeError, type Answered, type NamedHost } from './outgoing.js';

type Answer = TagQuestion['answers'][number];
type Reached = TagQuestion['reached'][number];

/** A player waits about this long for a document, in milliseconds. */
const usualPatience = 8_000;
const maxBytes = 2_000_000;
const maxRedirects = 5;

/**
 * Hosts on this machine and in its network that may be asked: those that a person named, by an address or an option.
 */
export function namedHosts(start: string, allowed: readonly string[]): NamedHost[] {
  const hosts: NamedHost[] = [];
  if (/^https?:/i.test(start) && URL.canParse(start)) {
    const url = new URL(start);
    hosts.push({ host: url.hostname, port: portOf(url) });
  }
  for (const text of allowed) {
    const [host = '', port] = text.split(/:(?=\d+$)/);
    for (const each of port === undefined ? [80, 443] : [Number(port)])
      hosts.push({ host: host.toLowerCase(), port: each });
  }
  return hosts;
}

interface Asking {
  named: readonly NamedHost[];
  /** How long is waited, redirects included, in milliseconds. */
  patience?: number;
  /** Returns the address to request instead. */
  via?: (url: string) => string;
}

/** Fetches the VAST document of a tag. Failures are returned, not thrown. */
export async function askForTag(url: string, asking: Asking): Promise<Answer> {
  const begun = performance.now();
  const { redirects, found } = await follow('GET', url, asking);
  const answer = { url, ms: Math.round(performance.now() - begun), redirects };
  if ('failed' in found) return { ...answer, failed: found.failed };
  const { status, headers, bytes } = found;
  if (status !== 200 || bytes.length === 0) return { ...answer, failed: 'status', status };
  const text = textOf(found);
  if (text === undefined) return { ...answer, failed: 'not-text' };
  // A word of the network, and then its sentence.
  const said = headers['ad-refused'];
  const reason = typeof said === 'string' ? { said: said.replace(/^[\w-]+; /, '').slice(0, 500) } : {};
  return { ...answer, text, status, ...reason };
}

/** Checks whether a file exists, without fetching it. */
export async function tryFile(url: string, named: readonly NamedHost[]): Promise<Reached> {
  const { found } = await follow('HEAD', url, { named });
  if ('failed' in found) return found.failed === 'timeout' ? { url, timedOut: true } : { url };
  // Some servers of files do not take HEAD.
  if (found.status !== 405 && found.status !== 501) return { url, status: found.status };
  const { found: part } = await follow('GET', url, { named }, { Range: 'bytes=0-0' });
  if ('failed' in part) return part.failed === 'too-large' ? { url, status: 200 } : { url };
  return { url, status: part.status };
}

/** Calls a tracker, and says what came of it. */
export async function callTracker(url: string, named: readonly NamedHost[]): Promise<string> {
  const { found } = await follow('GET', url, { named });
  return 'failed' in found ? found.failed : String(found.status);
}

/** Asks for an address, and for those that the server sends on to. */
async function follow(
  method: string,
  url: string,
  { named, patience = usualPatience, via = (one) => one }: Asking,
  headers: Readonly<Record<string, string>> = {},
): Promise<{ redirects: number; found: Answered | Failed }> {
  const until = performance.now() + patience;
  let at = via(url);
  for (let redirects = 0; redirects <= maxRedirects; redirects++) {
    const timeout = until - performance.now();
    if (timeout <= 0) return { redirects, found: { failed: 'timeout' } };
    const found = await attempt(method, at, { named, timeout, headers });
    const target =
      'failed' in found || found.status < 300 || found.status >= 400 ? undefined : found.headers.location;
    if (target === undefined || !URL.canParse(target, at)) return { redirects, found };
    at = via(new URL(target, at).href);
  }
  return { redirects: maxRedirects, found: { failed: 'redirects' } };
}

interface Failed {
  failed: NonNullable<Answer['failed']>;
}

async function attempt(
  method: string,
  url: string,
  {
    named,
    timeout,
    headers,
  }: { named: readonly NamedHost[]; timeout: number; headers: Readonly<Record<string, string>> },
): Promise<Answered | Failed> {
  if (!/^https?:\/\//i.test(url) || !URL.canParse(url)) return { failed: 'unreachable' };
  try {
    const accept = { Accept: '*/*', 'User-Agent': 'syndexa', ...headers };
    return await ask({ method, url, headers: accept, timeout: Math.ceil(timeout), maxBytes, named });
  } catch (error) {
    if (error instanceof TooLargeError) return { failed: 'too-large' };
    const { name = '' } = error as Error;
    return { failed: name === 'TimeoutError' || name === 'AbortError' ? 'timeout' : 'unreachable' };
  }
}

/**
 * The text of an answer, in the encoding that its bytes, its head or its document names; undefined where it is none.
 */
function textOf({ bytes, headers }: Answered): string | undefined {
  return headers['content-encoding'] !== undefined && headers['content-encoding'] !== 'identity'
    ? undefined
    : decodeXml(bytes, /charset\s*=\s*"?([\w-]+)/i.exec(headers['content-type'] ?? '')?.[1]);
}

/** Whether a host may be called by `--fire`: one that was named, or the simulated partner. */
export function mayBeCalled(url: string, named: readonly NamedHost[]): boolean {
  if (!URL.canParse(url)) return false;
  const target = new URL(url);
  return named.some(({ host, port }) => host === target.hostname && port === portOf(target));
}
