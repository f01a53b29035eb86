import { timingSafeEqual } from 'node:crypto';
import type { RequestHandler, Router } from 'express';
import * as z from 'zod';
import { Format, Platform } from '../../core/words/words.js';
import { UnitSettings, UnitStatus } from '../../core/inventory/model.js';
import { networkOf, type PartnerContext } from '../context.js';
import { Refusal } from '../errors.js';
import { FaultPlan } from '../faults.js';
import { adEventNames } from '../store/ledger.js';
import { unitOf, type Account } from '../store/rows.js';
import { appOf } from '../store/books.js';

const AccountRequest = z.strictObject({
  network: z.string(),
  name: z.string().min(1).max(100),
  key: z.string().min(8).max(200).optional(),
  number: z.string().max(40).optional(),
});
const AppRequest = z.strictObject({
  network: z.string(),
  key: z.string(),
  platform: Platform,
  identifier: z.string(),
  name: z.string(),
  audience: z.string().default('general'),
  id: z.string().optional(),
  terms: z.boolean().default(false),
});
const UnitRequest = z.strictObject({
  network: z.string(),
  key: z.string(),
  app: z.string().nullable().default(null),
  platform: Platform,
  format: Format,
  name: z.string(),
  settings: UnitSettings.default({}),
  id: z.string().optional(),
  serves: z.boolean().default(false),
});
const ManyRequest = z.strictObject({
  network: z.string(),
  key: z.string(),
  app: z.string().nullable().default(null),
  count: z.number().int().min(1).max(200_000),
});
const UnitChange = z.strictObject({
  network: z.string(),
  unit: z.string(),
  name: z.string().optional(),
  status: UnitStatus.optional(),
  format: Format.optional(),
  settings: UnitSettings.optional(),
  gone: z.boolean().default(false),
});
const ClockRequest = z.strictObject({
  now: z.iso.datetime().optional(),
  stands: z.boolean().default(false),
  advance: z.number().optional().meta({ description: 'Seconds.' }),
});
const ListingRequest = z.strictObject({
  platform: Platform,
  identifier: z.string(),
  name: z.string(),
  site: z.string().optional(),
});
const SiteRequest = z.strictObject({
  domain: z.string().max(200),
  address: z.url({ protocol: /^http$/, hostname: /^(127\.0\.0\.1|localhost)$/ }),
});

const DeviceRequest = z.strictObject({
  network: z.string(),
  key: z.string().optional().meta({ description: 'Of one account; else of all of the network.' }),
  device: z.string().min(1).max(200),
});
const MarketRequest = z.strictObject({
  network: z.string(),
  fill: z.number().min(0).max(1).optional(),
  latency: z.number().int().min(0).max(60_000).optional().meta({ description: 'Milliseconds.' }),
});
const CountRequest = z.strictObject({ network: z.string(), unit: z.string(), event: z.enum(adEventNames) });

/** Lets only those through who know the token of this run. */
function behind(token: string): RequestHandler {
  return function controlToken(request, _response, next) {
    const given = Buffer.from(String(request.headers['control-token'] ?? ''));
    const wanted = Buffer.from(token);
    if (given.length !== wanted.length || !timingSafeEqual(given, wanted))
      throw new Refusal('key-unknown', 'This is for whoever started the partner.');
    next();
  };
}

/** Registers controls: a body that is checked, and work whose result is the answer. */
function controls(router: Router) {
  return <Body extends z.ZodType>(path: string, body: Body, work: (value: z.output<Body>) => unknown) =>
    router.post(`/control/${path}`, function control(request, response) {
      const parsed = body.safeParse(request.body ?? {});
      if (!parsed.success) {
        const [issue] = parsed.error.issues;
        throw new Refusal('unreadable', issue?.message ?? 'It cannot be read.', {
          field: issue?.path.map(String).join('.'),
        });
      }
      response.json(work(parsed.data) ?? {});
    });
}

/** What a person would do on the network's pages, and what tests set: behind the token of this run. */
export function controlRoutes(router: Router, context: PartnerContext, token: string): void {
  const { books, clock, faults, market } = context;
  router.use('/control', behind(token));
  const on = controls(router);
  const keyed = (network: string, key: string) => {
    const profile = networkOf(context, network);
    return { profile, account: accountBy(context, profile.id, key) };
  };
  on('accounts', AccountRequest, ({ network, name, key, number }) => {
    const opened = books.openAccount(networkOf(context, network), name, {
      ...(key === undefined ? {} : { key }),
      ...(number === undefined ? {} : { number }),
    });
    return { key: opened.key, number: opened.account.number };
  });
  on('apps', AppRequest, ({ network, key, id, ...app }) => {
    const { profile, account } = keyed(network, key);
    return appOf(books, books.addApp(profile, account, { ...app, ...(id === undefined ? {} : { id }) }));
  });
  on('units', UnitRequest, ({ network, key, id, ...unit }) => {
    const { profile, account } = keyed(network, key);
    return unitOf(books.addUnit(profile, account, { ...unit, ...(id === undefined ? {} : { id }) }));
  });
  on('many', ManyRequest, ({ network, key, app, count }) => {
    const { profile, account } = keyed(network, key);
    books.addMany(profile, account, app, count);
    return { added: count };
  });
  on('unit', UnitChange, ({ network, unit, gone, ...change }) => {
    const profile = networkOf(context, network);
    if (gone) books.dropUnit(profile.id, unit);
    else books.changeUnit(profile.id, unit, change);
  });
  on('terms', z.strictObject({ network: z.string(), app: z.string() }), ({ network, app }) =>
    books.acceptTerms(networkOf(context, network).id, app),
  );
  on('clock', ClockRequest, ({ now, stands, advance }) => {
    if (now !== undefined) clock.set(new Date(now), stands);
    if (advance !== undefined) clock.advance(advance);
    return { now: clock.now().toISOString() };
  });
  on('faults', FaultPlan, (plan) => faults.set(plan));
  servingControls(on, context);
  on('listings', ListingRequest, (listing) => books.list({ ...listing, site: listing.site ?? null }));
  on('sites', SiteRequest, ({ domain, address }) => books.placeSite(domain, address));
  on('reset', z.strictObject({}), () => {
    books.reset();
    market.reset();
  });
}

/** What decides about ads: devices for testing, how much is filled, suspended accounts. */
function servingControls(on: ReturnType<typeof controls>, context: PartnerContext): void {
  const { books, ledger, market } = context;
  on('devices', DeviceRequest, ({ network, key, device }) => {
    const profile = networkOf(context, network);
    const accounts = key === undefined ? books.accountsOf(profile.id) : [accountBy(context, profile.id, key)];
    for (const account of accounts) ledger.registerDevice(profile.id, account.id, device);
    return { accounts: accounts.length };
  });
  on('market', MarketRequest, ({ network, ...change }) => market.set(networkOf(context, network).id, change));
  on('lift', z.strictObject({ network: z.string() }), ({ network }) => ({
    lifted: ledger.lift(networkOf(context, network).id).length,
  }));
  on('counted', CountRequest, ({ network, unit, event }) => ({
    counted: ledger.counted(networkOf(context, network).id, unit, event),
  }));
}

function accountBy({ books }: PartnerContext, network: string, key: string): Account {
  const account = books.accountByKey(network, key);
  if (!account) throw new Refusal('key-unknown', 'Nobody has this key.');
  return account;
}
