import type { Router } from 'express';
import { platforms, type Platform } from '../../core/words/words.js';
import type { Profile } from '../../core/network/model.js';
import { networkOf, type PartnerContext } from '../context.js';
import { crawl } from '../crawler.js';
import { Refusal } from '../errors.js';
import { partnerDocument } from '../openapi.js';

/** What needs no key: the store, the crawler's reports, and the network's own page. */
export function publicRoutes(router: Router, context: PartnerContext): void {
  const { books, clock, profiles } = context;
  router.get('/healthz', (_request, response) => {
    response.json({ partner: 'simulated', networks: [...profiles.keys()], now: clock.now().toISOString() });
  });

  router.get('/openapi.json', (_request, response) => {
    response.json(partnerDocument());
  });

  router.get('/store/:platform/:identifier', (request, response) => {
    const { platform, identifier } = request.params;
    if (!isPlatform(platform)) throw new Refusal('platform-unknown', `There is no store for ${platform}.`);
    const listing = books.listing(platform, identifier);
    response.json(
      listing
        ? { listed: true, platform, identifier, name: listing.name, site: listing.site }
        : { listed: false, platform, identifier },
    );
  });

  router.post('/:network/crawl', async (request, response) => {
    const profile = networkOf(context, request.params.network);
    response.json({ apps: await crawl(context, profile) });
  });

  router.get('/:network', (request, response) => {
    response.type('html').send(networkPage(context, networkOf(context, request.params.network)));
  });
  router.post('/:network/terms/:app', (request, response) => {
    const profile = networkOf(context, request.params.network);
    const app = books.app(profile.id, request.params.app);
    if (!app) throw new Refusal('not-found', 'There is no such app.');
    const origin = request.headers.origin;
    if (origin !== undefined && origin !== `http://${String(request.headers.host)}`)
      throw new Refusal('key-unknown', 'This comes from another page.');
    books.acceptTerms(profile.id, app.id);
    response.redirect(303, `/${profile.id}`);
  });
}

/** The network's own page, where a person accepts the terms of an app. */
function networkPage({ books }: PartnerContext, profile: Profile): string {
  const rows = books
    .accountsOf(profile.id)
    .flatMap((account) => books.appsOf(profile.id, account.id, 0, 1000))
    .map(
      ({ id, name, platform, identifier, terms }) =>
        `<tr><td>${plain(name)}<td>${platform}<td>${plain(identifier)}<td>${
          terms
            ? 'accepted'
            : `<form method="post" action="/${profile.id}/terms/${encodeURIComponent(id)}"><button>Accept the terms</button></form>`
        }`,
    );
  const table =
    rows.length > 0
      ? `<table><tr><th>App<th>Platform<th>Identifier<th>Terms${rows.join('')}</table>`
      : '<p>No apps yet.</p>';
  const name = plain(profile.name);
  return `<!doctype html><meta charset="utf-8"><title>${name}</title><h1>${name}</h1><p>Simulated. ${plain(profile.terms ?? '')}</p>${table}`;
}

function isPlatform(text: string): text is Platform {
  return platforms.some((platform) => platform === text);
}

function plain(text: string): string {
  return text.replace(/[&<>"']/g, (char) => `&#${char.charCodeAt(0)};`);
}
