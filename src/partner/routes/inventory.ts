import { valueAt } from '../../core/text/own-values.js';
import type { Request, Router } from 'express';
import { rateLimit } from 'express-rate-limit';
import { decodeApp, decodeUnit, encodeApp, encodeUnit } from '../../core/inventory/dialect.js';
import type { Profile } from '../../core/network/model.js';
import { makeMatching } from '../../core/network/make-id.js';
import type { PartnerContext } from '../context.js';
import { Refusal } from '../errors.js';
import type { FaultKind } from '../faults.js';
import { unitOf, type Account } from '../store/rows.js';
import { appOf } from '../store/books.js';
import { answer, hang } from './answer.js';
import { cursorFor, cursorIn } from './cursor.js';
import { checkedApp, checkedUnit, checkSettings } from '../validate.js';

export interface RateRule {
  /** So many calls … */
  limit: number;
  /** … in so many seconds, per key. */
  seconds: number;
}

type Row = Record<string, unknown>;

/** The inventory of each network, in the words of its profile: lists in pages, and what can be created. */
export function inventoryRoutes(router: Router, context: PartnerContext, rate: RateRule): void {
  const limiter = rateLimit({
    windowMs: rate.seconds * 1000,
    limit: rate.limit,
    standardHeaders: true,
    legacyHeaders: false,
    validate: false,
    keyGenerator: (request) => `${request.params.network} ${headerOf(context, request)}`,
    handler: (_request, response) => {
      response.status(429).json({ error: { code: 'too-many', message: 'Too many calls; wait.' } });
    },
  });
  router.get('/:network/*path', limiter, async function list(request, response, next) {
    const profile = context.profiles.get(String(request.params.network));
    const what = profile && listed(profile, pathOf(request));
    if (!profile || !what) return next();
    const account = accountOf(context, profile, request);
    const fault = context.faults.next(profile.id, 'GET');
    if (fault === 'timeout') return hang(request);
    await answer(response, fault, pageOf(context, { profile, account, what, request, fault }));
  });
  router.post('/:network/*path', limiter, async function create(request, response, next) {
    const profile = context.profiles.get(String(request.params.network));
    const what = profile && listed(profile, pathOf(request));
    if (!profile || !what) return next();
    const account = accountOf(context, profile, request);
    if (!httpOf(profile).create)
      throw new Refusal('not-found', `${profile.name} lets nothing be created from outside.`);
    const fault = context.faults.next(profile.id, 'POST');
    if (fault === 'error') return answer(response, fault, {});
    const made = createOnce(context, { profile, account, what, request });
    // What a cut or an endless wait hides was done all the same: that is what idempotency keys are for.
    if (fault === 'timeout') return hang(request);
    response.status(made.status);
    await answer(response, fault, made.body as Row);
  });
  router.patch('/:network/*path', limiter, function change(request, response, next) {
    const profile = context.profiles.get(String(request.params.network));
    const path = pathOf(request);
    const cut = path.lastIndexOf('/');
    if (!profile || listed(profile, path.slice(0, cut)) !== 'units') return next();
    const account = accountOf(context, profile, request);
    const id = decodeURIComponent(path.slice(cut + 1));
    response.json(changeUnit(context, { profile, account, request }, id));
  });
}

/** A request for a network's inventory, and whose it is. */
interface Asked {
  profile: Profile;
  account: Account;
  request: Request;
}

function accountOf(context: PartnerContext, profile: Profile, request: Request): Account {
  const key = headerOf(context, request);
  if (!key)
    throw new Refusal('key-missing', 'The key is missing.', { header: profile.inventory?.http?.header });
  const account = context.books.accountByKey(profile.id, key);
  if (!account) throw new Refusal('key-unknown', 'Nobody has this key.');
  return account;
}

/** One page of a list of apps or units. */
function pageOf(
  { books }: PartnerContext,
  {
    profile,
    account,
    what,
    request,
    fault,
  }: Asked & { what: 'apps' | 'units'; fault: FaultKind | undefined },
): Row {
  const { page, units, apps } = httpOf(profile);
  const size = Math.min(Math.max(Number(valueAt(request.query, page.size)) || page.limit, 1), page.limit);
  const from = cursorIn(valueAt(request.query, page.cursor));
  // A list that changes while it is read: what came before this page is one longer, or one shorter.
  const shift = fault === 'shift' ? (from % 2 === 0 ? 1 : -1) : 0;
  const start = from === 0 ? 0 : Math.max(0, from + shift);
  const rows: Row[] =
    what === 'apps' && apps
      ? books
          .appsOf(profile.id, account.id, start, size)
          .map((row) => encodeApp(profile, apps.fields, appOf(books, row)))
      : books
          .unitsOf(profile.id, account.id, start, size)
          .map((row) => encodeUnit(profile, units.fields, unitOf(row)));
  const total = books.countOf(what, profile.id, account.id);
  const after = start + rows.length;
  const items = what === 'apps' && apps ? apps.items : units.items;
  return {
    [items]: fault === 'odd-ids' ? rows.map((row) => invalidIdOf(row, units.fields.id)) : rows,
    ...(after < total ? { [page.next]: cursorFor(fault === 'loop' ? from : after) } : {}),
    ...(page.total === undefined ? {} : { [page.total]: total }),
  };
}

/** Creates an app or a unit. The same request under the same idempotency key gets the answer that it got before. */
function createOnce(
  context: PartnerContext,
  { profile, account, what, request }: Asked & { what: 'apps' | 'units' },
): { status: number; body: unknown } {
  const { books } = context;
  const key = request.headers['idempotency-key'];
  const asked = JSON.stringify([what, request.body]);
  return books.together(() => {
    const before = typeof key === 'string' ? books.answered(account.id, key, asked) : undefined;
    if (before) return before;
    const add = what === 'apps' ? addApp : addUnit;
    const body = add(context, profile, account, request);
    if (typeof key === 'string') books.keepAnswer(account.id, key, asked, 201, body);
    return { status: 201, body };
  });
}

function changeUnit({ books }: PartnerContext, { profile, account, request }: Asked, id: string): Row {
  const { fields } = httpOf(profile).units;
  const row = books.unit(profile.id, id);
  if (row?.account !== account.id) throw new Refusal('not-found', `This account has no ${id}.`);
  const current = encodeUnit(profile, fields, unitOf(row));
  const changes = { ...current, ...(request.body as Row), [fields.id]: id };
  const { value, message } = decodeUnit(profile, fields, changes);
  if (!value) throw new Refusal('unreadable', `It cannot be read: ${message}.`);
  if (value.format) checkSettings(profile, value.format, value.settings);
  const { name, status, settings } = value;
  const changed = books.changeUnit(profile.id, id, { name, settings, ...(status ? { status } : {}) });
  return encodeUnit(profile, fields, unitOf(changed));
}

function httpOf(profile: Profile) {
  const http = profile.inventory?.http;
  if (!http) throw new Refusal('not-found', `${profile.name} has no inventory.`);
  return http;
}

function headerOf({ profiles }: PartnerContext, request: Request): string {
  const http = profiles.get(String(request.params.network))?.inventory?.http;
  if (!http) return '';
  const value = valueAt(request.headers, http.header.toLowerCase());
  return typeof value === 'string' && value.startsWith(http.prefix) ? value.slice(http.prefix.length) : '';
}

/** The path below the network, still encoded: an ID may itself be an address. */
function pathOf(request: Request): string {
  const path = request.path.slice(1);
  return path.slice(path.indexOf('/'));
}

function listed({ inventory }: Profile, path: string): 'apps' | 'units' | undefined {
  if (path === inventory?.http?.apps?.path) return 'apps';
  return path === inventory?.http?.units.path ? 'units' : undefined;
}

function invalidIdOf(row: Row, field: string): Row {
  return { ...row, [field]: `not an ID of ours ${String(valueAt(row, field)).length}` };
}

function addApp({ books }: PartnerContext, profile: Profile, account: Account, request: Request): Row {
  const fields = httpOf(profile).apps?.fields;
  if (!fields) throw new Refusal('not-found', `${profile.name} keeps no apps.`);
  const id = placeholderId(profile, 'app');
  const { value, message } = decodeApp(profile, fields, { ...(request.body as Row), [fields.id]: id });
  if (!value) throw new Refusal('unreadable', `It cannot be read: ${message}.`);
  const row = books.addApp(profile, account, checkedApp(books, profile, account, value));
  return encodeApp(profile, fields, appOf(books, row));
}

function addUnit({ books }: PartnerContext, profile: Profile, account: Account, request: Request): Row {
  const { fields } = httpOf(profile).units;
  const body = request.body as Row;
  const plain = { ...profile, ids: { ...profile.ids, unit: undefined } };
  const { value, message } = decodeUnit(plain, fields, { ...body, [fields.id]: 'new' });
  if (!value) throw new Refusal('format-unknown', `It cannot be read: ${message}.`, { field: fields.format });
  const { app, ...unit } = checkedUnit(books, profile, account, value);
  return encodeUnit(
    profile,
    fields,
    unitOf(books.addUnit(profile, account, { ...unit, app: app?.id ?? null })),
  );
}

/** A placeholder for an ID that is assigned after the rest of a row was read. */
function placeholderId({ ids }: Profile, kind: 'app' | 'unit'): string {
  const rules = ids[kind];
  return rules ? makeMatching(rules.pattern, () => 0) : 'new';
}
