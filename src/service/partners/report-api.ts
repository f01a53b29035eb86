import type { Decoded } from '../../core/inventory/dialect.js';
import type { Profile } from '../../core/network/model.js';
import type { Report, ReportField, ReportHttp } from '../../core/network/report.js';
import { writeDay, type Span } from '../../core/tally/days.js';
import { rowDecoder } from '../../core/tally/dialect.js';
import type { TallyRow } from '../../core/tally/model.js';
import { valueAt } from '../../core/text/own-values.js';
import { ServiceError } from '../errors.js';
import type { Access } from './partner-api.js';
import { asRow, cursorOf, type Row } from './json-answer.js';
import { partnerCall, type CallLimits } from './partner-call.js';

/** More pages than this count as an endless response. */
const maxPages = 50_000;

export interface ReportPage {
  rows: { value: Decoded<TallyRow>; id: string | null }[];
  /** How many rows there are in all, where the network says so. */
  total: number | undefined;
}

/** Asks a network for its daily numbers, in the words of its profile. */
export class ReportApi {
  constructor(
    private readonly profile: Profile & { report: Report & { http: ReportHttp } },
    private readonly address: string,
    private readonly access: Access,
    private readonly limits: CallLimits,
  ) {}

  /** Yields the pages of a span of days. Transient failures are retried. */
  async *pages(span: Span, now: Date): AsyncGenerator<ReportPage> {
    const { report } = this.profile;
    const { http } = report;
    const { page } = http;
    const decode = rowDecoder(this.profile, report, now);
    const used = new Set<string>();
    let cursor: string | undefined;
    for (let number = 0; number < maxPages; number++) {
      const query = new URLSearchParams({
        [http.from]: writeDay(report.day, span.from),
        [http.to]: writeDay(report.day, span.to),
        [page.size]: String(page.limit),
        ...(cursor === undefined ? {} : { [page.cursor]: cursor }),
      });
      const answer = asRow(await this.call(`${http.path}?${query}`, http.rows));
      const total = page.total === undefined ? undefined : valueAt(answer, page.total);
      yield {
        rows: (valueAt(answer, http.rows) as unknown[]).map((row) => this.read(asRow(row), decode)),
        total: typeof total === 'number' ? total : undefined,
      };
      cursor = cursorOf(valueAt(answer, page.next));
      if (cursor === undefined) return;
      if (used.has(cursor)) throw this.odd('its pages form a loop');
      used.add(cursor);
    }
    throw this.odd(`its answer has more than ${maxPages} pages`);
  }

  private read(row: Row, decode: ReturnType<typeof rowDecoder>): ReportPage['rows'][number] {
    const { report } = this.profile;
    const { fields } = report.http;
    const text = (name: string | undefined) =>
      name === undefined ? undefined : textOf(valueAt(row, name), report.decimal);
    const value = decode(
      (field: ReportField) => text(valueAt(fields, field)),
      report.splits.map((split) => text(split) ?? ''),
    );
    return { value, id: text(fields.unit)?.slice(0, 200) || null };
  }

  private call(path: string, items: string): Promise<unknown> {
    const { http } = this.profile.report;
    return partnerCall(
      {
        network: this.profile.name,
        method: 'GET',
        url: `${this.address}${path}`,
        headers: { [http.header]: `${http.prefix}${this.access.key.reveal()}` },
        fault: (answer) =>
          Array.isArray(valueAt(asRow(answer), items)) ? null : `its answer has no list “${items}”`,
        keyName: this.access.key.toString(),
        named: this.access.named,
        clean: this.access.clean,
      },
      this.limits,
    );
  }

  private odd(what: string): ServiceError {
    return new ServiceError(
      'partner-odd',
      `The report of ${this.profile.name} could not be read completely: ${what}.`,
      {
        fix: 'The earlier rows are kept. Check the report section of the profile.',
      },
    );
  }
}

/** A value as the profile writes it: numbers of JSON have a point, whatever the network writes in tables. */
function textOf(value: unknown, decimal: string): string | undefined {
  if (typeof value === 'string') return value.trim();
  if (typeof value !== 'number') return undefined;
  const text = Number.isInteger(value) && Math.abs(value) < 1e15 ? String(value) : value.toFixed(9);
  return text.replace('.', decimal);
}
