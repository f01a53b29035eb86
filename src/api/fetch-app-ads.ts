import { ask, portOf, TooLargeError, type Answered, type NamedHost } from './outgoing.js';

const maxBytes = 2_000_000;
const maxRedirects = 5;

/** Why a developer site gave no app-ads.txt. */
export class SiteError extends Error {
  override readonly name = 'SiteError';

  constructor(
    readonly kind: 'no-address' | 'unreachable' | 'no-file',
    message: string,
    /** What to do about it. */
    readonly fix: string,
  ) {
    super(message);
  }
}

/**
 * Fetches the app-ads.txt that a developer site serves, as a crawler does: a few redirects, and out of the site's
 * own domain at most once (IAB ads.txt specification, section 3.1); bounded in time and size.
 * @param mayBeLocal whether the address itself may be one of the local network; redirects into it are never followed
 * @throws SiteError
 */
export async function fetchAppAds(
  address: string,
  mayBeLocal: boolean,
): Promise<{ text: string; url: string }> {
  let url = parse(address);
  let left = false;
  const named = mayBeLocal ? [{ host: url.hostname, port: portOf(url) }] : [];
  for (let hop = 0; hop <= maxRedirects; hop++) {
    const { status, headers, text } = await get(url, named);
    const target = headers.location;
    if (status < 300 || status >= 400 || target === undefined) {
      if (status === 200) return { text, url: url.href };
      throw refused(url, `The site responds with ${status}.`);
    }
    const next = parse(new URL(target, url).href);
    if (rootDomain(next.hostname) !== rootDomain(url.hostname)) {
      if (left) throw refused(url, 'It redirects to other domains twice, which crawlers do not follow.');
      left = true;
    }
    url = next;
  }
  throw refused(url, `It was redirected more than ${maxRedirects} times.`);
}

function parse(address: string): URL {
  try {
    const url = new URL(address);
    if (url.protocol === 'http:' || url.protocol === 'https:') return url;
  } catch {
    // Said below, for both cases.
  }
  throw new SiteError(
    'no-address',
    `${JSON.stringify(address)} is not a web address.`,
    'Use one such as https://saltmarsh.example/app-ads.txt.',
  );
}

async function get(url: URL, named: readonly NamedHost[]): Promise<Answered> {
  try {
    const headers = { Accept: 'text/plain', 'User-Agent': 'syndexa' };
    return await ask({ method: 'GET', url: url.href, headers, timeout: 10_000, maxBytes, named });
  } catch (error) {
    if (error instanceof TooLargeError) throw refused(url, `The file is larger than ${maxBytes} bytes.`);
    throw new SiteError(
      'unreachable',
      `${url.href} cannot be reached: ${error instanceof Error ? error.message : String(error)}.`,
      'Check the address, and that the site is up.',
    );
  }
}

function refused(url: URL, reason: string): SiteError {
  return new SiteError(
    'no-file',
    `${url.href} does not serve an app-ads.txt. ${reason}`,
    'Crawlers fail in the same way: serve the file as text/plain at /app-ads.txt.',
  );
}

/** The last two parts of a host name; good enough to tell one site from another here. */
function rootDomain(host: string): string {
  return /^[\d.]+$/.test(host) ? host : host.split('.').slice(-2).join('.');
}
