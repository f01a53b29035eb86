import { inOurWords } from '../../core/text/issue-text.js';
import { timingSafeEqual } from 'node:crypto';
import type { RequestHandler, Router } from 'express';
import type * as z from 'zod';
import { networkOf, type PartnerContext } from '../context.js';
import { controlBodies, type ControlName } from '../control-bodies.js';
import { Refusal } from '../errors.js';
import { readDay } from '../../core/tally/days.js';
import { reporting, tableOf } from './reports.js';
import { unitOf, type Account } from '../store/rows.js';
import { appOf } from '../store/books.js';

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

/** Registers controls: each validates a body, and responds with the result of its work. */
function controls(router: Router) {
  return <Name extends ControlName>(
    name: Name,
    work: (value: z.output<(typeof controlBodies)[Name]['body']>) => unknown,
  ) =>
    router.post(`/control/${name}`, function control(request, response) {
      const parsed = controlBodies[name].body.safeParse(request.body ?? {}, inOurWords);
      if (!parsed.success) {
        const [issue] = parsed.error.issues;
        throw new Refusal('unreadable', issue?.message ?? 'It cannot be read.', {
          field: issue?.path.map(String).join('.'),
        });
      }
      response.json(work(parsed.data as z.output<(typeof controlBodies)[Name]['body']>) ?? {});
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
  on('accounts', ({ network, name, key, number }) => {
    const opened = books.openAccount(networkOf(context, network), name, {
      ...(key === undefined ? {} : { key }),
      ...(number === undefined ? {} : { number }),
    });
    return { key: opened.key, number: opened.account.number };
  });
  on('apps', ({ network, key, id, ...app }) => {
    const { profile, account } = keyed(network, key);
    return appOf(books, books.addApp(profile, account, { ...app, ...(id === undefined ? {} : { id }) }));
  });
  on('units', ({ network, key, id, 'serves-from': servesFrom, ...unit }) => {
    const { profile, account } = keyed(network, key);
    const given = {
      ...(id === undefined ? {} : { id }),
      ...(servesFrom === undefined ? {} : { servesFrom }),
    };
    return unitOf(books.addUnit(profile, account, { ...unit, ...given }));
  });
  on('many', ({ network, key, app, count }) => {
    const { profile, account } = keyed(network, key);
    books.addMany(profile, account, app, count);
    return { added: count };
  });
  on('unit', ({ network, unit, gone, ...change }) => {
    const profile = networkOf(context, network);
    if (gone) books.dropUnit(profile.id, unit);
    else books.changeUnit(profile.id, unit, change);
  });
  on('terms', ({ network, app }) => books.acceptTerms(networkOf(context, network).id, app));
  on('clock', ({ now, stands, advance }) => {
    if (now !== undefined) clock.set(new Date(now), stands);
    if (advance !== undefined) clock.advance(advance);
    return { now: clock.now().toISOString() };
  });
  on('faults', ({ network, ...plan }) => faults.set({ network: networkOf(context, network).id, ...plan }));
  servingControls(on, context);
  on('listings', (listing) => books.list({ ...listing, site: listing.site ?? null }));
  on('sites', ({ domain, address }) => books.placeSite(domain, address));
  on('reset', () => {
    books.reset();
    market.reset();
    context.reports.reset();
  });
}

/** What decides about ads: devices for testing, how much is filled, suspended accounts. */
function servingControls(on: ReturnType<typeof controls>, context: PartnerContext): void {
  const { books, ledger, market } = context;
  on('devices', ({ network, key, device }) => {
    const profile = networkOf(context, network);
    const accounts = key === undefined ? books.accountsOf(profile.id) : [accountBy(context, profile.id, key)];
    for (const account of accounts) ledger.registerDevice(profile.id, account.id, device);
    return { accounts: accounts.length };
  });
  on('push', ({ network, key, credential }) =>
    ledger.depositPush(accountBy(context, networkOf(context, network).id, key), credential),
  );
  on('rewards', ({ network, key, address }) => ({
    key: ledger.reportRewards(accountBy(context, networkOf(context, network).id, key), address),
  }));
  on('market', ({ network, ...change }) => market.set(networkOf(context, network).id, change));
  on('incident', ({ network, from, to, ...incident }) => {
    const last = to === undefined ? undefined : (readDay(to) ?? undefined);
    context.reports.befall(networkOf(context, network).id, {
      ...incident,
      from: readDay(from) ?? 0,
      to: last,
    });
  });
  on('report', ({ network, from, to }) => {
    const profile = reporting(context, networkOf(context, network).id);
    if (!profile) throw new Refusal('not-found', `${network} reports nothing.`);
    const [first, last] = [readDay(from) ?? 0, readDay(to) ?? 0];
    const accounts = books.accountsOf(profile.id);
    return {
      table: tableOf(
        profile,
        accounts.flatMap((account) => context.reports.rows(profile, account, first, last)),
      ),
    };
  });
  on('lift', ({ network }) => ({
    lifted: ledger.lift(networkOf(context, network).id).length,
  }));
  on('counted', ({ network, unit, event }) => ({
    counted: ledger.counted(networkOf(context, network).id, unit, event),
  }));
}

function accountBy({ books }: PartnerContext, network: string, key: string): Account {
  const account = books.accountByKey(network, key);
  if (!account) throw new Refusal('key-unknown', 'Nobody has this key.');
  return account;
}
