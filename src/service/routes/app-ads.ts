import { compareAppAds, mergeAppAds, neededRecords } from '../../core/roster/app-ads-needs.js';
import { readAppAds } from '../../core/standards/app-ads.js';
import { applyEdits } from '../../core/text/edit.js';
import { unifiedPatch } from '../../core/text/patch.js';
import { fetchAppAds, SiteError } from '../../api/fetch-app-ads.js';
import { ServiceError } from '../errors.js';
import type { Handlers } from '../route.js';
import type { Service } from '../service.js';

/** app-ads.txt: what is needed, what a file has of it, and what would bring it in. */
export const appAdsHandlers = {
  appAdsNeeds: (_call, service) => ({
    domain: service.roster.publisher()?.domain ?? null,
    needed: needed(service),
    text: merged(service, ''),
  }),
  lintAppAds: ({ body }) => {
    const { lines, problems } = readAppAds(body.text);
    return {
      records: lines.flatMap((line) => (line.kind === 'record' ? [{ ...line.record, line: line.line }] : [])),
      problems,
    };
  },
  compareAppAds: ({ body }, service) => {
    if (body.from !== undefined) service.steps.saveAppAds(body.from, body.text, service.now().toISOString());
    return { comparisons: compareAppAds(body.text, needed(service)) };
  },
  verifyAppAds: async ({ body }, service) => {
    const domain = service.roster.publisher()?.domain;
    const address = body.url ?? (domain === undefined ? undefined : `https://${domain}/app-ads.txt`);
    if (address === undefined)
      throw new ServiceError(
        'invalid',
        'The roster has no publisher, so the address of the file is not known.',
        {
          fix: 'Set the publisher’s domain, or pass the address.',
        },
      );
    const { text, url } = await fetchAppAds(address, false).catch((error: unknown) => {
      if (!(error instanceof SiteError)) throw error;
      throw new ServiceError(error.kind === 'no-address' ? 'invalid' : 'site', error.message, {
        fix: error.fix,
      });
    });
    service.steps.saveAppAds(url, text, service.now().toISOString());
    return { url, comparisons: compareAppAds(text, needed(service)), problems: readAppAds(text).problems };
  },
  mergeAppAds: ({ body }, service) => {
    const text = merged(service, body.text);
    return { text, patch: unifiedPatch([{ path: 'app-ads.txt', before: body.text, after: text }]) };
  },
} satisfies Partial<Handlers>;

function needed(service: Service) {
  return neededRecords(service.roster.roster(), service.profiles.profiles());
}

function merged(service: Service, text: string) {
  return applyEdits(text, mergeAppAds(text, needed(service)));
}
