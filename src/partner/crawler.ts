import { readAppAds } from '../core/standards/app-ads.js';
import type { Profile } from '../core/network/model.js';
import type { PartnerContext } from './context.js';

/** What the crawler says of one app. */
export interface CrawlReport {
  app: string;
  identifier: string;
  platform: string;
  state: 'authorised' | 'not-named' | 'no-file' | 'no-site' | 'not-listed';
  detail: string;
}

const maxBytes = 1_000_000;

/**
 * Reads the app-ads.txt of the developer site of every app, as its store listing names it. Sites are reached at
 * the local addresses that they were given; nothing outside is asked.
 */
export async function crawl({ books }: PartnerContext, profile: Profile): Promise<CrawlReport[]> {
  const reports: CrawlReport[] = [];
  for (const account of books.accountsOf(profile.id)) {
    for (const app of books.appsOf(profile.id, account.id, 0, 1000)) {
      const base = { app: app.id, identifier: app.identifier, platform: app.platform };
      const listing = books.listing(app.platform, app.identifier);
      if (!listing) {
        reports.push({ ...base, state: 'not-listed', detail: 'The store does not list it.' });
        continue;
      }
      const site = listing.site === null ? undefined : books.siteAddress(listing.site);
      if (site === undefined) {
        reports.push({
          ...base,
          state: 'no-site',
          detail: 'The store names no developer site that answers.',
        });
        continue;
      }
      const text = await fileAt(`${site.replace(/\/$/, '')}/app-ads.txt`);
      if (text === null) {
        reports.push({ ...base, state: 'no-file', detail: `${listing.site} serves no app-ads.txt.` });
        continue;
      }
      const named = readAppAds(text).lines.some(
        (line) =>
          line.kind === 'record' &&
          profile['app-ads'].some(({ domain }) => domain === line.record.domain) &&
          (account.number === null || line.record.account === account.number),
      );
      reports.push(
        named
          ? { ...base, state: 'authorised', detail: `${listing.site} names ${profile.name}.` }
          : {
              ...base,
              state: 'not-named',
              detail: `${listing.site} does not name ${profile.name} with this account.`,
            },
      );
    }
  }
  return reports;
}

async function fileAt(url: string): Promise<string | null> {
  try {
    const response = await fetch(url, { redirect: 'error', signal: AbortSignal.timeout(5_000) });
    if (!response.ok) return null;
    const bytes = await response.arrayBuffer();
    return bytes.byteLength > maxBytes ? null : new TextDecoder().decode(bytes);
  } catch {
    return null;
  }
}
