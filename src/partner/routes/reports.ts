import type { Request, Router } from 'express';
import { writeCsv } from '../../core/formats/csv/write.js';
import type { Profile } from '../../core/network/model.js';
import type { Report, ReportFields, ReportHttp } from '../../core/network/report.js';
import { dayReader, type Day } from '../../core/tally/days.js';
import { valueAt } from '../../core/text/own-values.js';
import type { PartnerContext } from '../context.js';
import { Refusal } from '../errors.js';
import { inWords } from '../reports/words.js';
import { hang, answer } from './answer.js';
import { cursorFor, cursorIn } from './cursor.js';

type Reporting = Profile & { report: Report & { http: ReportHttp } };

/** The daily numbers of each network, in the words of its profile: JSON in pages, or a CSV table whole. */
export function reportRoutes(router: Router, context: PartnerContext): void {
  router.get('/:network/*path', async function report(request, response, next) {
    const profile = reporting(context, String(request.params.network));
    const path = request.path.slice(1);
    if (!profile || path.slice(path.indexOf('/')) !== profile.report.http.path) return next();
    const account = accountOf(context, profile, request);
    const fault = context.faults.next(profile.id, 'GET');
    if (fault === 'timeout') return hang(request);
    const { http } = profile.report;
    const from = dayIn(profile, request, http.from);
    const to = dayIn(profile, request, http.to);
    const rows = context.reports.rows(profile, account, from, to);
    if (request.accepts(['application/json', 'text/csv']) === 'text/csv')
      return void response.type('text/csv').send(tableOf(profile, rows));
    const { page, fields } = http;
    const size = Math.min(Math.max(Number(valueAt(request.query, page.size)) || page.limit, 1), page.limit);
    const start = cursorIn(valueAt(request.query, page.cursor));
    const shown = rows.slice(start, start + size);
    const after = start + shown.length;
    await answer(response, fault, {
      [http.rows]: shown.map((row) => inWords(profile.report, fields, row)),
      ...(after < rows.length ? { [page.next]: cursorFor(fault === 'loop' ? start : after) } : {}),
      ...(page.total === undefined ? {} : { [page.total]: rows.length }),
    });
  });
}

/** A whole report as the table that a person would export. */
export function tableOf(profile: Reporting, rows: Parameters<typeof inWords>[2][]): string {
  const { report } = profile;
  const columns: ReportFields = report.csv?.columns ?? report.http.fields;
  const names = Object.values(columns).filter((name) => name !== undefined);
  return writeCsv([
    names,
    ...rows.map((row) => {
      const said = inWords(report, columns, row);
      return names.map((name) => valueAt(said, name) ?? null);
    }),
  ]);
}

/** A network with reports. */
export function reporting({ profiles }: PartnerContext, network: string): Reporting | undefined {
  const profile = profiles.get(network);
  const { report } = profile ?? {};
  return profile && report?.http ? { ...profile, report: { ...report, http: report.http } } : undefined;
}

function accountOf({ books }: PartnerContext, { id, report: { http } }: Reporting, request: Request) {
  const value = valueAt(request.headers, http.header.toLowerCase());
  if (typeof value !== 'string' || !value.startsWith(http.prefix))
    throw new Refusal('key-missing', 'The key is missing.', { header: http.header });
  const account = books.accountByKey(id, value.slice(http.prefix.length));
  if (!account) throw new Refusal('key-unknown', 'Nobody has this key.');
  return account;
}

function dayIn({ report }: Reporting, request: Request, name: string): Day {
  const text = valueAt(request.query, name);
  const form = report.day === 'timestamp' ? 'yyyy-mm-dd' : report.day;
  const day = typeof text === 'string' ? dayReader(form, report.zone)(text) : null;
  if (day !== null) return day;
  throw new Refusal('unreadable', `${name} is not a day such as ${form}.`, { field: name });
}
