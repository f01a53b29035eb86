import type { Router } from 'express';
import { platforms, type Format, type Platform } from '../../core/words/words.js';
import type { Profile } from '../../core/network/model.js';
import { samplesOf } from '../../core/network/samples.js';
import { networkOf, type PartnerContext } from '../context.js';
import { crawl } from '../crawler.js';
import { Refusal } from '../errors.js';

/** What needs no key: the store, the crawler's reports, and whether a unit serves. */
export function publicRoutes(router: Router, context: PartnerContext): void {
  const { books, clock, profiles } = context;
  router.get('/healthz', (_request, response) => {
    response.json({ partner: 'simulated', networks: [...profiles.keys()], now: clock.now().toISOString() });
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

  router.get('/:network/ad', (request, response) => {
    const profile = networkOf(context, request.params.network);
    const id = typeof request.query.unit === 'string' ? request.query.unit : '';
    response.json(adFor(context, profile, id));
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

/** What a device is answered that asks a unit for an ad: the network's own words when nothing is served. */
function adFor({ books, clock }: PartnerContext, profile: Profile, id: string) {
  const sample = profile.ids.unit && samplesOf(profile.ids.unit).find((one) => one.id === id);
  if (sample) return { unit: id, test: true, format: sample.format ?? null };
  const unit = books.unit(profile.id, id);
  if (!unit || unit.status === 'removed') throw new Refusal('not-found', `There is no unit ${id}.`);
  if (unit.status === 'paused') throw new Refusal('unit-paused', `${id} is paused.`);
  const app = unit.app === null ? undefined : books.app(profile.id, unit.app);
  if (app && !app.terms)
    throw new Refusal('terms-open', `The terms were not accepted for ${app.name}.`, { app: app.id });
  const left = Math.ceil((Date.parse(unit.servesFrom) - clock.now().getTime()) / 1000);
  if (left > 0)
    throw new Refusal('unit-too-new', `${id} is new and serves nothing yet.`, {
      serves_from: unit.servesFrom,
      seconds_left: left,
    });
  return { unit: id, test: false, format: unit.format as Format };
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
