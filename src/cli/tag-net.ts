import type { TagQuestion } from '../api/tags.js';
import { ask, portOf, TooLargeError, type Answered, type NamedHost } from '../service/partners/outgoing.js';

type Answer = TagQuestion['answers'][number];
type Reached = TagQuestion['reached'][number];

/** A player waits about this long for a document, in milliseconds. */
const usualPatience = 8_000;
const maxBytes = 2_000_000;
const maxRedirects = 5;

/** Hosts on this machine and in its network that may be asked: those that a person named, by an address or an option. */
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

/** Asks for the document of a tag, as a player does; whatever comes of it is an answer. */
export async function askForTag(
  url: string,
  named: readonly NamedHost[],
  {
    patience = usualPatience,
    via = (one: string) => one,
  }: { patience?: number; via?: (url: string) => string } = {},
): Promise<Answer> {
  const begun = performance.now();
  const answer = (more: Omit<Answer, 'url' | 'ms'>): Answer => ({
    url,
    ms: Math.round(performance.now() - begun),
    ...more,
  });
  let at = via(url);
  for (let redirects = 0; redirects <= maxRedirects; redirects++) {
    const left = patience - (performance.now() - begun);
    if (left <= 0) return answer({ failed: 'timeout', redirects });
    const found = await attempt('GET', at, { named, timeout: left });
    if ('failed' in found) return answer({ failed: found.failed, redirects });
    const { status, headers } = found;
    const target = headers.location;
    if (status >= 300 && status < 400 && target !== undefined && URL.canParse(target, at)) {
      at = via(new URL(target, at).href);
      continue;
    }
    if (status !== 200 || found.bytes.length === 0) return answer({ failed: 'status', status, redirects });
    const text = textOf(found);
    const said = headers['ad-refused'];
    // The network's word for it, and then its sentence.
    const reason = typeof said === 'string' ? { said: said.replace(/^[\w-]+; /, '').slice(0, 500) } : {};
    return answer(
      text === undefined ? { failed: 'not-text', redirects } : { text, status, redirects, ...reason },
    );
  }
  return answer({ failed: 'redirects', redirects: maxRedirects });
}

/** Tries whether a file is there, without fetching it. */
export async function tryFile(url: string, named: readonly NamedHost[]): Promise<Reached> {
  const found = await follow('HEAD', url, named);
  if ('failed' in found) return found.failed === 'timeout' ? { url, timedOut: true } : { url };
  // Some servers of files do not take HEAD.
  if (found.status !== 405 && found.status !== 501) return { url, status: found.status };
  const part = await follow('GET', url, named, { Range: 'bytes=0-0' });
  if ('failed' in part) return part.failed === 'too-large' ? { url, status: 200 } : { url };
  return { url, status: part.status };
}

/** Calls a tracker, and says what came of it. */
export async function callTracker(url: string, named: readonly NamedHost[]): Promise<string> {
  const found = await follow('GET', url, named);
  return 'failed' in found ? found.failed : String(found.status);
}

async function follow(
  method: string,
  url: string,
  named: readonly NamedHost[],
  headers: Readonly<Record<string, string>> = {},
): Promise<Answered | Failed> {
  let at = url;
  for (let redirects = 0; redirects <= maxRedirects; redirects++) {
    const found = await attempt(method, at, { named, timeout: usualPatience, headers });
    if ('failed' in found) return found;
    const target = found.headers.location;
    if (found.status < 300 || found.status >= 400 || target === undefined || !URL.canParse(target, at))
      return found;
    at = new URL(target, at).href;
  }
  return { failed: 'redirects' };
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
    headers = {},
  }: { named: readonly NamedHost[]; timeout: number; headers?: Readonly<Record<string, string>> },
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

/** The text of an answer, in the encoding that its bytes, its head or its document names; undefined where it is none. */
function textOf({ bytes, headers }: Answered): string | undefined {
  return headers['content-encoding'] !== undefined && headers['content-encoding'] !== 'identity'
    ? undefined
    : decodeXml(bytes, /charset\s*=\s*"?([\w-]+)/i.exec(headers['content-type'] ?? '')?.[1]);
}

/** XML as text (XML 1.0, appendix F): a byte order mark counts most, then what was said of it, then its own head. */
export function decodeXml(bytes: Uint8Array, said?: string): string | undefined {
  const mark =
    bytes[0] === 0xff && bytes[1] === 0xfe
      ? 'utf-16le'
      : bytes[0] === 0xfe && bytes[1] === 0xff
        ? 'utf-16be'
        : undefined;
  const head = new TextDecoder('latin1').decode(bytes.subarray(0, 200));
  const own = /^(?:\xef\xbb\xbf)?<\?xml[^>]{0,100}encoding\s*=\s*["']([\w.-]+)["']/.exec(head)?.[1];
  // A document that could be read to its head is of an encoding of one byte for each letter there.
  const claimed = own && !/^(utf-?16|ucs|utf-?32)/i.test(own) ? own : undefined;
  try {
    return new TextDecoder(mark ?? said ?? claimed ?? 'utf-8', { fatal: true }).decode(bytes);
  } catch {
    return undefined;
  }
}

/** Whether a host may be called by `--fire`: one that was named, or the simulated partner. */
export function mayBeCalled(url: string, named: readonly NamedHost[]): boolean {
  if (!URL.canParse(url)) return false;
  const target = new URL(url);
  return named.some(({ host, port }) => host === target.hostname && port === portOf(target));
}
