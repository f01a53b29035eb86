import { CommandError, exit } from './io.js';

const maxBytes = 2_000_000;
const maxRedirects = 5;

/**
 * Fetches the app-ads.txt that a developer site serves, as a crawler does: a few redirects, and out of the site's
 * own domain at most once (IAB ads.txt specification, section 3.1); bounded in time and size.
 */
export async function fetchAppAds(address: string): Promise<{ text: string; url: string }> {
  let url = parse(address);
  let left = false;
  for (let hop = 0; hop <= maxRedirects; hop++) {
    const response = await get(url);
    const target = response.headers.get('location');
    if (response.status < 300 || response.status >= 400 || target === null)
      return { text: await bodyOf(response, url), url: url.href };
    const next = parse(new URL(target, url).href);
    if (rootDomain(next.hostname) !== rootDomain(url.hostname)) {
      if (left) throw refused(url, 'It leads out of its own domain twice, which crawlers do not follow.');
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
  throw new CommandError(
    `${JSON.stringify(address)} is no web address.`,
    exit.wrongUse,
    'Give one such as https://saltmarsh.example/app-ads.txt.',
  );
}

async function get(url: URL): Promise<Response> {
  try {
    return await fetch(url, {
      redirect: 'manual',
      signal: AbortSignal.timeout(10_000),
      headers: { Accept: 'text/plain' },
    });
  } catch (error) {
    const cause =
      error instanceof Error && error.cause instanceof Error ? error.cause.message : String(error);
    throw new CommandError(
      `${url.href} cannot be reached: ${cause}.`,
      exit.unreachable,
      'Check the address, and that the site is up.',
    );
  }
}

async function bodyOf(response: Response, url: URL): Promise<string> {
  if (response.status !== 200) throw refused(url, `The site answers ${response.status}.`);
  const chunks: Uint8Array[] = [];
  let size = 0;
  const reader = response.body?.getReader();
  for (let part = await reader?.read(); part?.value; part = await reader?.read()) {
    size += part.value.length;
    if (size > maxBytes) {
      await reader?.cancel();
      throw refused(url, `The file is larger than ${maxBytes} bytes.`);
    }
    chunks.push(part.value);
  }
  return Buffer.concat(chunks).toString('utf8');
}

function refused(url: URL, reason: string): CommandError {
  return new CommandError(
    `${url.href} gives no app-ads.txt. ${reason}`,
    exit.findings,
    'Crawlers see what this command sees: serve the file as text/plain at /app-ads.txt.',
  );
}

/** The last two parts of a host name; good enough to tell one site from another here. */
function rootDomain(host: string): string {
  return /^[\d.]+$/.test(host) ? host : host.split('.').slice(-2).join('.');
}
