import type { Span } from '../text/problem.js';

// app-ads.txt follows ads.txt: IAB Tech Lab, "ads.txt Specification Version 1.1" and "Authorized Sellers for Apps
// (app-ads.txt)". Records are lines of fields parted by commas; `#` begins a comment, `;` an extension.

/** A seller that may sell the publisher's inventory. */
export interface SellerRecord {
  /** Domain of the advertising system, in small letters. */
  domain: string;
  account: string;
  relationship: 'DIRECT' | 'RESELLER';
  /** The ID of the system with a certification authority. */
  certification?: string;
}

export type AppAdsLine = Span & { line: number } & (
    | { kind: 'record'; record: SellerRecord }
    | { kind: 'variable'; name: string; value: string }
    | { kind: 'other' }
  );

export interface AppAdsProblem {
  line: number;
  column: number;
  severity: 'error' | 'warning';
  message: string;
  fix: string;
}

export interface AppAdsFile {
  lines: AppAdsLine[];
  problems: AppAdsProblem[];
}

/** Files longer than this (characters) are not read. */
export const maxAppAdsLength = 2_000_000;

const variables = new Set(['CONTACT', 'SUBDOMAIN', 'INVENTORYPARTNERDOMAIN', 'OWNERDOMAIN', 'MANAGERDOMAIN']);
const domainShape = /^([a-z0-9]([a-z0-9-]{0,61}[a-z0-9])?\.)+[a-z]{2,63}$/;
/** The record that says: there are no sellers. It names none. */
const nobody = 'placeholder.example.com';

/** Reads an app-ads.txt file: every line with its place, and what is wrong with it. */
export function readAppAds(text: string): AppAdsFile {
  const problems: AppAdsProblem[] = [];
  if (text.length > maxAppAdsLength) {
    const message = `The file is longer than ${maxAppAdsLength} characters.`;
    return {
      lines: [],
      problems: [{ line: 1, column: 1, severity: 'error', message, fix: 'Serve a file of records only.' }],
    };
  }
  if (/^\s*<(!doctype|html|head|body)\b/i.test(text)) {
    const message = 'This is a web page, not an app-ads.txt file.';
    const fix = 'Serve the file itself as text/plain at /app-ads.txt, not a page of the site.';
    return { lines: [], problems: [{ line: 1, column: 1, severity: 'error', message, fix }] };
  }
  const lines: AppAdsLine[] = [];
  let start = 0;
  let line = 0;
  for (const raw of text.split(/\r\n|\n|\r/)) {
    line++;
    const report = (severity: AppAdsProblem['severity'], message: string, fix: string, column = 1) =>
      problems.push({ line, column, severity, message, fix });
    lines.push({ ...readLine(raw, line === 1, report), start, end: start + raw.length, line });
    const end = start + raw.length;
    start = end + (text.startsWith('\r\n', end) ? 2 : 1);
  }
  lintWhole(lines, problems);
  problems.sort((a, b) => a.line - b.line || a.column - b.column);
  return { lines, problems };
}

type Reporter = (severity: AppAdsProblem['severity'], message: string, fix: string, column?: number) => void;
type LineContent = AppAdsLine extends infer Line
  ? Line extends AppAdsLine
    ? Omit<Line, keyof Span | 'line'>
    : never
  : never;

function readLine(raw: string, first: boolean, report: Reporter): LineContent {
  const marked = first && raw.startsWith('\ufeff');
  if (marked)
    report(
      'warning',
      'The file starts with a byte order mark, which some crawlers read as part of the first domain.',
      'Save it as UTF-8 without a mark.',
    );
  const text = (marked ? raw.slice(1) : raw).replace(/#.*$/, '');
  if (text.trim() === '') return { kind: 'other' };
  const odd = /[\u00a0\u2000-\u200f\u2028\u2029\ufeff]/.exec(text);
  if (odd)
    report(
      'error',
      'A character here looks like a space but is another one. It was copied from a page or a document.',
      'Type the line again with ordinary spaces.',
      odd.index + 1,
    );
  const variable = /^\s*([A-Za-z]+)\s*=\s*(.*?)\s*$/.exec(text);
  if (variable && !text.slice(0, text.indexOf('=')).includes(',')) {
    const name = (variable[1] ?? '').toUpperCase();
    if (!variables.has(name))
      report(
        'warning',
        `There is no variable ${variable[1]}; crawlers ignore it.`,
        `The variables are ${[...variables].join(', ')}.`,
      );
    return { kind: 'variable', name, value: variable[2] ?? '' };
  }
  return readRecord(text, report);
}

function readRecord(text: string, report: Reporter): LineContent {
  const fields = (text.split(';')[0] ?? '').split(',').map((field) => field.trim());
  const [domain = '', account = '', relation = '', certification = ''] = fields;
  const shape = 'domain, account, DIRECT or RESELLER, and the certification ID if there is one';
  if (fields.length < 3) {
    report(
      'error',
      `A record has at least three fields, and this line has ${fields.length}.`,
      `Write ${shape}.`,
    );
    return { kind: 'other' };
  }
  if (fields.length > 4)
    report(
      'warning',
      `A record has at most four fields, and this line has ${fields.length}.`,
      `Write ${shape}; comments follow a "#".`,
    );
  const relationship = relation.toUpperCase();
  const lower = domain.toLowerCase();
  let right = true;
  const fault = (message: string, fix: string) => {
    report('error', message, fix);
    right = false;
  };
  if (!domainShape.test(lower))
    fault(
      `${JSON.stringify(domain)} is no domain.`,
      'Name the domain of the advertising system, without a scheme or path.',
    );
  if (account === '') fault('The account is missing.', 'Write the publisher’s account at the network.');
  if (relationship !== 'DIRECT' && relationship !== 'RESELLER')
    fault(
      `${JSON.stringify(relation)} is no relationship.`,
      'Write DIRECT if the account is your own, otherwise RESELLER.',
    );
  if (!right || (relationship !== 'DIRECT' && relationship !== 'RESELLER') || lower === nobody)
    return { kind: 'other' };
  return {
    kind: 'record',
    record: {
      domain: lower,
      account,
      relationship,
      ...(certification ? { certification: certification.toLowerCase() } : {}),
    },
  };
}

function lintWhole(lines: readonly AppAdsLine[], problems: AppAdsProblem[]): void {
  const seen = new Map<string, { line: number; record: SellerRecord }>();
  const owners = new Map<string, number>();
  for (const item of lines) {
    const { line } = item;
    if (item.kind === 'variable' && item.name === 'OWNERDOMAIN') {
      const first = owners.get('OWNERDOMAIN');
      if (first === undefined) owners.set('OWNERDOMAIN', line);
      else
        problems.push({
          line,
          column: 1,
          severity: 'error',
          message: `OWNERDOMAIN is repeated; it is already on line ${first}.`,
          fix: 'Keep one: a file has one owner.',
        });
    }
    if (item.kind !== 'record') continue;
    const { domain, account, relationship, certification } = item.record;
    const key = `${domain} ${account}`;
    const other = seen.get(key);
    if (!other) {
      seen.set(key, { line, record: item.record });
      continue;
    }
    const same = other.record.relationship === relationship && other.record.certification === certification;
    const message = same
      ? `This record is already on line ${other.line}.`
      : `The account ${account} at ${domain} is declared differently on line ${other.line}.`;
    problems.push({
      line,
      column: 1,
      severity: same ? 'warning' : 'error',
      message,
      fix: same ? 'Remove one.' : 'Keep the correct one.',
    });
  }
  const declared = lines.some(({ kind }) => kind === 'record');
  if (!declared && problems.every(({ severity }) => severity !== 'error')) {
    problems.push({
      line: 1,
      column: 1,
      severity: 'warning',
      message: 'No seller is declared.',
      fix: 'Add the records that your networks require: syndexa appads merge.',
    });
  }
}

/** A record as it is written. */
export function recordText({ domain, account, relationship, certification }: SellerRecord): string {
  return [domain, account, relationship, ...(certification ? [certification] : [])].join(', ');
}
