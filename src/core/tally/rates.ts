import { findColumns } from '../formats/csv/columns.js';
import { CsvError, readCsv, type CsvFault } from '../formats/csv/read.js';
import type { InvalidRow } from '../inventory/model.js';
import { readDay, type Day } from './days.js';

/** What one unit of a currency was worth on a day, in another currency. */
export interface Rate {
  day: Day;
  currency: string;
  /** The currency that it is given in. */
  base: string;
  /** Billionths of the base for one unit of the currency. */
  nanos: number;
}

/** Rates are whole numbers of this part of a unit. */
export const rateScale = 1_000_000_000n;
/** How many days a rate is valid without a newer one: weekends and holidays have none. */
const holds = 10;

/**
 * Reads a table of daily rates with the columns day, currency, base and rate: on that day, one unit of `currency` was
 * worth `rate` units of `base`. Days are written 2026-10-01, rates with a decimal point.
 */
export function readRates(
  text: string,
): { rates: Rate[]; odd: InvalidRow[]; fault: null } | { fault: CsvFault } {
  try {
    const [header, ...rows] = readCsv(text);
    if (!header) return { fault: { message: 'The table is empty.', fix: 'Export it again.' } };
    const found = findColumns<'day' | 'currency' | 'base' | 'rate'>(
      header,
      { day: 'day', currency: 'currency', base: 'base', rate: 'rate' },
      { required: ['day', 'currency', 'base', 'rate'], example: 'day="Date"' },
    );
    if ('fault' in found) {
      const fix = 'A table of rates has the columns day, currency, base and rate.';
      return { fault: { ...found.fault, fix } };
    }
    const rates: Rate[] = [];
    const odd: InvalidRow[] = [];
    for (const { line: row, cells } of rows) {
      const cell = (field: 'day' | 'currency' | 'base' | 'rate') => cells[found.at.get(field) ?? 0] ?? '';
      const read = rateOf(cell('day'), cell('currency'), cell('base'), cell('rate'));
      if ('problem' in read) odd.push({ row, id: null, message: read.problem });
      else rates.push(read);
    }
    return { rates, odd, fault: null };
  } catch (error) {
    if (error instanceof CsvError) return { fault: error.fault };
    throw error;
  }
}

function rateOf(day: string, currency: string, base: string, rate: string): Rate | { problem: string } {
  const on = readDay(day);
  if (on === null) return { problem: `“${day.slice(0, 40)}” is not a day such as 2026-10-01` };
  for (const name of [currency, base])
    if (!/^[A-Z]{3}$/.test(name))
      return { problem: `“${name.slice(0, 40)}” is no currency of three capital letters` };
  if (currency === base) return { problem: `${currency} is given in ${base}` };
  const [, whole = '', fraction = ''] = /^(\d{1,6})(?:\.(\d{1,12}))?$/.exec(rate) ?? [];
  const nanos = Number(whole || '0') * 1e9 + Number(fraction.slice(0, 9).padEnd(9, '0'));
  if (whole === '' || nanos === 0) return { problem: `“${rate.slice(0, 40)}” is no rate such as 0.9231` };
  return { day: on, currency, base, nanos };
}

/** Converts amounts by the rates of their days, exactly: results are in `1 / rateScale` micros. */
export class Exchange {
  readonly #rates = new Map<string, { days: Day[]; nanos: number[] }>();

  /** @param into the currency to convert into; only rates that are given in it count */
  constructor(
    readonly into: string,
    rates: readonly Rate[],
  ) {
    const own = rates.filter(({ base }) => base === into).sort((a, b) => a.day - b.day);
    for (const { currency, day, nanos } of own) {
      const list = this.#rates.get(currency) ?? { days: [], nanos: [] };
      this.#rates.set(currency, list);
      list.days.push(day);
      list.nanos.push(nanos);
    }
  }

  /** Null where no rate of that day is known, nor one of the ten days before it. */
  convert(micros: number, currency: string, day: Day): bigint | null {
    if (currency === this.into) return BigInt(micros) * rateScale;
    const list = this.#rates.get(currency);
    const at = list ? lastUpTo(list.days, day) : -1;
    const since = list?.days[at];
    const nanos = list?.nanos[at];
    if (since === undefined || nanos === undefined || day - since >= holds) return null;
    return BigInt(micros) * BigInt(nanos);
  }
}

/** The position of the last of some ordered numbers that is not above a limit; -1 where there is none. */
function lastUpTo(ordered: readonly number[], limit: number): number {
  let [low, high] = [0, ordered.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if ((ordered[middle] ?? 0) <= limit) low = middle + 1;
    else high = middle;
  }
  return low - 1;
}
