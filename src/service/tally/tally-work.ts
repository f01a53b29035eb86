import type { Readable } from 'node:stream';
import type { FetchAnswer, FetchRequest, ImportQuery, ImportSummary, RatesAnswer } from '../../api/tally.js';
import { CsvError } from '../../core/formats/csv/read.js';
import type { InvalidRow } from '../../core/inventory/model.js';
import type { Profile } from '../../core/network/model.js';
import { ReportFields } from '../../core/network/report.js';
import { dayText, daysIn, readDay, type Day, type Span } from '../../core/tally/days.js';
import { spanOf, spanOut } from '../../core/tally/imported.js';
import { readRates } from '../../core/tally/rates.js';
import { ReportTable, type LinedRow, type ReadBlock } from '../../core/tally/table.js';
import { knownEncoding } from '../../core/text/decode.js';
import type { ServiceContext } from '../context.js';
import { ServiceError } from '../errors.js';
import type { OnProgress } from '../../core/text/progress.js';
import type { Writer } from '../store/roster-store.js';
import { ImportRun, reached } from './import-run.js';

/** Days of one question to a network: what was answered is kept if a later one fails. */
const daysAtOnce = 31;
/** How many days a first fetch goes back. */
const firstDays = 90;
const oddAtMost = 1_000;

/** Brings daily numbers in: tables, what networks report, rates. */
export class TallyWork {
  constructor(private readonly context: ServiceContext) {}

  /**
   * Takes a table as it arrives. Rows are written block by block, so that a table of any length needs little memory.
   * @throws ServiceError `invalid` for a table that cannot be read, or not to its end; what was written stays
   */
  async importTable(query: ImportQuery, stream: Readable, writer: Writer): Promise<ImportSummary> {
    const { profile } = this.context.profiles.get(query.network);
    const table = new ReportTable(profile, {
      now: this.context.now(),
      columns: columnsOf(query.columns),
      ...(query.separator === undefined ? {} : { separator: query.separator }),
    });
    const run = new ImportRun(this.context, { network: profile.id, source: 'csv', name: query.name }, writer);
    const clean = this.context.secrets.cleaner();
    const write = ({ rows, odd }: ReadBlock) =>
      run.write(
        rows.map(({ line, row }) =>
          row.part === '' ? { line, row } : { line, row: { ...row, part: clean(row.part) } },
        ),
        odd.map(({ row, id, message }) => ({ row, id: id && clean(id), message: clean(message) })),
      );
    let isBegun = false;
    try {
      for await (const text of decodedBlocks(stream, query.encoding)) {
        const block = table.push(text);
        if (!isBegun && (block.rows.length > 0 || block.odd.length > 0)) {
          run.begin();
          isBegun = true;
        }
        write(block);
      }
      if (!isBegun) run.begin();
      write(table.end());
      run.flush();
    } catch (error) {
      if (isBegun) {
        run.flush();
        run.reached(spanOf(run.count.days), false);
      }
      if (!(error instanceof CsvError)) throw error;
      const { message, fix, line } = error.fault;
      throw new ServiceError('invalid', `${clean(message)} ${reached(run.count)}`, {
        fix,
        errors: [
          {
            field: 'table',
            message: clean(message),
            ...(line === undefined ? {} : { place: { line, column: 1 } }),
          },
        ],
      });
    }
    this.demandRows(profile, run);
    run.reached(spanOf(run.count.days), true);
    const columns = {
      unknownColumns: table.unknown.slice(0, 200).map(clean),
      missingColumns: [...table.missing],
    };
    return run.summary(columns);
  }

  /** @throws ServiceError when not one row makes sense: it is another table, or another network */
  private demandRows({ name }: Profile, { count }: ImportRun): void {
    const [first] = count.left.odd;
    if (count.rows > 0 || !first) return;
    throw new ServiceError('invalid', `No row is valid. Line ${first.row}: ${first.message}.`, {
      fix: `Check that this is a table of ${name}, and which column is which.`,
    });
  }

  /** Asks networks one after another. One that fails does not keep the others from being asked. */
  async fetch(
    request: FetchRequest,
    writer: Writer,
    progress: OnProgress,
    signal: AbortSignal,
  ): Promise<FetchAnswer> {
    const answer: FetchAnswer = { fetched: [], skipped: [] };
    for (const profile of this.asked(request)) {
      signal.throwIfAborted();
      try {
        answer.fetched.push(await this.fetchFrom(profile, request, { writer, progress, signal }));
      } catch (error) {
        // If a single network was requested, its error is the error of the call.
        if (!(error instanceof ServiceError) || request.networks?.length === 1) throw error;
        answer.skipped.push({ network: profile.id, why: error.message, fix: error.fix ?? '' });
      }
    }
    return answer;
  }

  private asked({ networks }: FetchRequest): Profile[] {
    const { profiles } = this.context;
    if (networks) return networks.map((id) => profiles.get(id).profile);
    return profiles.profiles().filter(({ report }) => report?.http);
  }

  private async fetchFrom(
    profile: Profile,
    request: FetchRequest,
    { writer, progress, signal }: { writer: Writer; progress: OnProgress; signal: AbortSignal },
  ): Promise<FetchAnswer['fetched'][number]> {
    const api = this.context.partners.reportApi(profile);
    const span = this.spanOf(profile, request);
    const run = new ImportRun(this.context, { network: profile.id, source: 'http', name: '' }, writer);
    const days = span.to - span.from + 1;
    run.begin();
    for (let from = span.from; from <= span.to; from += daysAtOnce) {
      const part = { from, to: Math.min(from + daysAtOnce - 1, span.to) };
      let number = 0;
      for await (const page of api.pages(part, this.context.now())) {
        signal.throwIfAborted();
        const rows: LinedRow[] = [];
        const odd: InvalidRow[] = [];
        for (const { value, id } of page.rows) {
          number++;
          if (value.value) rows.push({ line: number, row: value.value });
          else odd.push({ row: number, id, message: value.message });
        }
        run.write(rows, odd);
      }
      run.drop(wholeDays(profile, part));
      run.reached({ from: span.from, to: part.to }, part.to === span.to);
      progress({ doing: `reading the days of ${profile.name}`, done: part.to - span.from + 1, total: days });
    }
    this.demandRows(profile, run);
    return { ...run.summary({ unknownColumns: [], missingColumns: [] }), asked: spanOut(span) };
  }

  /** The days to ask for: those that are new, those that may have changed, and those of a fetch that was cut. */
  private spanOf(profile: Profile, { from, to }: FetchRequest): Span {
    const { report } = profile;
    const yesterday = daysIn(report?.zone ?? 'UTC')(this.context.now().getTime()) - 1;
    const last = Math.min(to === undefined ? yesterday : (readDay(to) ?? yesterday), yesterday);
    const first = from === undefined ? this.firstDay(profile, last) : (readDay(from) ?? last);
    if (first > last)
      throw new ServiceError(
        'invalid',
        `The days from ${dayText(first)} to ${dayText(last)} are not a valid range.`,
        {
          fix: `The last day that can be requested is ${dayText(yesterday)}.`,
        },
      );
    return { from: first, to: last };
  }

  private firstDay({ id, report }: Profile, last: Day): Day {
    const done = this.context.tallies.fetchedUpTo(id);
    if (done === null) return last - firstDays + 1;
    return Math.min(done - (report?.settles ?? 0) + 1, last);
  }

  /** @throws ServiceError `invalid` for a table that cannot be read */
  setRates(table: string): RatesAnswer {
    const read = readRates(table);
    if (read.fault) {
      const { message, fix, line } = read.fault;
      throw new ServiceError('invalid', message, {
        fix,
        errors: [{ field: 'table', message, ...(line === undefined ? {} : { place: { line, column: 1 } }) }],
      });
    }
    const changed = this.context.tallies.setRates(read.rates);
    return {
      rates: read.rates.length,
      changed,
      odd: read.odd.slice(0, oddAtMost),
      oddCount: read.odd.length,
    };
  }
}

/**
 * The days that a fetch covers completely. A network that reports instants may cut the first and the last day
 * elsewhere.
 */
function wholeDays({ report }: Profile, { from, to }: Span): Span {
  return report?.day === 'timestamp' ? { from: from + 1, to: to - 1 } : { from, to };
}

/** @throws ServiceError `invalid` */
function columnsOf(text: string | undefined): Partial<ReportFields> {
  if (text === undefined) return {};
  try {
    return ReportFields.partial().parse(JSON.parse(text));
  } catch {
    throw new ServiceError('invalid', 'columns is not a JSON object from fields to column names.', {
      fix: `The fields are ${Object.keys(ReportFields.shape).join(', ')}.`,
    });
  }
}

/**
 * The blocks of a stream as text.
 * @throws ServiceError `invalid` where the bytes are not in that encoding
 */
async function* decodedBlocks(stream: Readable, encoding: string): AsyncGenerator<string> {
  if (knownEncoding(encoding) === null)
    throw new ServiceError('invalid', `There is no encoding ${encoding}.`, {
      fix: 'Name one such as utf-8, utf-16le or windows-1252.',
    });
  let decoder: TextDecoder | undefined;
  try {
    for await (const bytes of stream as AsyncIterable<Buffer>) {
      decoder ??= new TextDecoder(markOf(bytes) ?? encoding, { fatal: true });
      yield decoder.decode(bytes, { stream: true });
    }
    if (decoder) yield decoder.decode();
  } catch (error) {
    if (!(error instanceof TypeError)) throw error;
    throw new ServiceError('invalid', `The table is not in ${encoding}.`, {
      fix: 'Name its encoding, such as windows-1252. The rows before this point are kept.',
    });
  }
}

/** The encoding that a byte order mark names. */
function markOf([first, second]: Buffer): string | undefined {
  if (first === 0xff && second === 0xfe) return 'utf-16le';
  return first === 0xfe && second === 0xff ? 'utf-16be' : undefined;
}
