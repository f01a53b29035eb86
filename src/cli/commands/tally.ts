import { counted } from '../../core/text/counted.js';
import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { basename, resolve } from 'node:path';
import { Readable } from 'node:stream';
import type { GroupName } from '../../api/tally.js';
import { reportFieldNames } from '../../core/network/report.js';
import { printableValue } from '../../core/text/printable.js';
import type { Platform } from '../../core/words/words.js';
import type { Client } from '../client.js';
import { withService } from '../connect.js';
import { CommandError, exit, type Io, type Paint, printJson } from '../io.js';
import { callFollowed, startProgress } from '../progress.js';
import { textOfFile, unreadable } from '../read-file.js';
import { platformLabels } from '../../core/words/platform-labels.js';
import { fetchText, importText } from '../render/tally-imports.js';
import { silentText } from '../render/tally-silent.js';
import { compareText, figuresCsv, figuresText } from '../render/tally.js';

interface AsJson {
  json?: boolean;
}

export interface ImportOptions extends AsJson {
  network: string;
  column?: string[];
  separator?: string;
  encoding?: string;
}

/** `syndexa tally import FILE…`: tables of daily numbers brought in. */
export function importTallies(
  io: Io,
  paint: Paint,
  files: readonly string[],
  options: ImportOptions,
): Promise<number> {
  return withService(io, async (client) => {
    const summaries = [];
    for (const file of files) {
      const summary = await sendTable(client, io, file, options);
      summaries.push(summary);
      if (!options.json) io.prose(importText(summary, paint));
    }
    if (options.json) printJson(io, summaries);
    return exit.clean;
  });
}

async function sendTable(client: Client, io: Io, file: string, options: ImportOptions) {
  const { network, column, separator, encoding } = options;
  const progress = startProgress(io, `reading ${file}`);
  const { stream, size } = await openTable(io, file);
  let sent = 0;
  stream.on('data', (chunk: Buffer) => {
    sent += chunk.length;
    progress.step({
      doing: `MB of ${basename(file)}`,
      done: Math.round(sent / 1e6),
      total: Math.round(size / 1e6),
    });
  });
  try {
    return await client.send(
      'importTally',
      {
        query: {
          network,
          name: file === '-' ? '' : basename(file).slice(0, 200),
          ...(encoding === undefined ? {} : { encoding }),
          ...(separator === undefined ? {} : { separator: separator === 'tab' ? '\t' : separator }),
          ...(column ? { columns: JSON.stringify(columnsOf(column)) } : {}),
        },
      },
      { stream, type: 'text/csv' },
    );
  } finally {
    progress.end();
  }
}

async function openTable(io: Io, file: string): Promise<{ stream: Readable; size: number }> {
  if (file === '-') {
    const bytes = await io.input();
    return { stream: Readable.from([Buffer.from(bytes)]), size: bytes.length };
  }
  const path = resolve(io.cwd, file);
  try {
    const found = await stat(path);
    if (found.isDirectory()) throw new Error('it is a folder');
    return { stream: createReadStream(path, { highWaterMark: 256 * 1024 }), size: found.size };
  } catch (error) {
    throw unreadable(file, error);
  }
}

function columnsOf(words: readonly string[]): Record<string, string> {
  return Object.fromEntries(
    words.map((word) => {
      const at = word.indexOf('=');
      const name = word.slice(0, at);
      if (at > 0 && reportFieldNames.some((field) => field === name)) return [name, word.slice(at + 1)];
      throw new CommandError(
        `--column takes FIELD=COLUMN, not “${word}”.`,
        exit.wrongUse,
        `The fields are ${reportFieldNames.join(', ')}.`,
      );
    }),
  );
}

export interface FetchOptions extends AsJson {
  network?: string[];
  from?: string;
  to?: string;
}

/** `syndexa tally fetch`: fetches daily numbers from the networks. */
export function fetchTallies(
  io: Io,
  paint: Paint,
  { network, from, to, json }: FetchOptions,
): Promise<number> {
  return withService(io, async (client) => {
    const body = {
      ...(network ? { networks: network } : {}),
      ...(from === undefined ? {} : { from }),
      ...(to === undefined ? {} : { to }),
    };
    const answer = await callFollowed(io, client, 'fetchTally', { body }, 'asking the networks');
    if (json) printJson(io, answer);
    else io.prose(fetchText(answer, paint));
    return answer.fetched.length === 0 && answer.skipped.length > 0 ? exit.unreachable : exit.clean;
  });
}

/** `syndexa tally imports`: what was brought in, the newest first. */
export function listImports(io: Io, paint: Paint, { json }: AsJson): Promise<number> {
  return withService(io, async (client) => {
    const imports = await client.call('listImports');
    if (json) printJson(io, imports);
    else if (imports.length === 0) io.out('Nothing has been imported yet.\n');
    for (const { network, source, name, at, who, days, rows, complete } of json
      ? []
      : printableValue(imports)) {
      const what = source === 'http' ? 'fetched' : name || 'standard input';
      const span = days ? `${days.from} to ${days.to}` : 'no days';
      const state = complete ? '' : paint.yellow('  ▲ not read to its end');
      io.out(
        `${at.slice(0, 16).replace('T', ' ')}  ${paint.bold(network)}  ${what}  ${span}  ${counted(rows, 'row')}  ${paint.dim(who)}${state}\n`,
      );
    }
    return exit.clean;
  });
}

export interface ReleaseOptions extends AsJson {
  platform?: Platform;
  on?: string;
  drop?: boolean;
}

/** `syndexa tally release TITLE [VERSION]`: the days on which versions went out. */
export function release(
  io: Io,
  paint: Paint,
  title: string,
  version: string | undefined,
  { platform, on, drop, json }: ReleaseOptions,
): Promise<number> {
  return withService(io, async (client) => {
    if (version !== undefined) {
      if (platform === undefined || (on === undefined && !drop))
        throw new CommandError(
          'A release has a platform and a day.',
          exit.wrongUse,
          `syndexa tally release ${title} ${version} --platform android --on 2026-10-01`,
        );
      const params = { title };
      if (drop) await client.call('dropRelease', { params, query: { platform, version } });
      else await client.call('setRelease', { params, body: { title, platform, version, day: on ?? '' } });
    }
    const releases = await client.call('listReleases', { params: { title } });
    if (json) printJson(io, releases);
    else if (releases.length === 0) io.out(`No release of ${title} is on record.\n`);
    else
      for (const one of printableValue(releases))
        io.out(`${one.day}  ${platformLabels[one.platform].padEnd(7)}  ${paint.bold(one.version)}\n`);
    return exit.clean;
  });
}

/** `syndexa tally rates FILE`: daily rates of currencies. */
export function setRates(io: Io, paint: Paint, file: string, { json }: AsJson): Promise<number> {
  return withService(io, async (client) => {
    const answer = await client.call('setRates', { body: { table: await textOfFile(io, file) } });
    if (json) printJson(io, answer);
    else {
      io.out(`${paint.green('✔')} ${counted(answer.rates, 'rate')}, ${answer.changed} new or changed\n`);
      for (const { row, message } of printableValue(answer.odd).slice(0, 20))
        io.out(`${paint.yellow('▲')} line ${row}: ${message}\n`);
    }
    return exit.clean;
  });
}

export interface ShowOptions extends AsJson {
  all?: boolean;
  by: GroupName;
  from?: string;
  to?: string;
  days?: string;
  in?: string;
  csv?: boolean;
}

/** `syndexa tally show TITLE`: what placements earned. */
export function showTally(
  io: Io,
  paint: Paint,
  title: string | undefined,
  options: ShowOptions,
): Promise<number> {
  const { by, from, to, days, csv, json, in: into } = options;
  const subject = subjectOf(title, options.all);
  return withService(io, async (client) => {
    const answer = await client.call('figures', {
      query: {
        ...subject.query,
        by,
        ...(from === undefined ? {} : { from }),
        ...(to === undefined ? {} : { to }),
        ...(days === undefined ? {} : { days }),
        ...(into === undefined ? {} : { in: into }),
      },
    });
    if (json) printJson(io, answer);
    else if (csv) io.raw(figuresCsv(answer));
    else io.out(figuresText(answer, paint, { width: io.columns, subject: subject.name }));
    return exit.clean;
  });
}

export interface CompareOptions extends AsJson {
  all?: boolean;
  this: string;
  against: string;
  in?: string;
}

/** `syndexa tally compare TITLE`: why revenue changed. */
export function compareTally(
  io: Io,
  paint: Paint,
  title: string | undefined,
  options: CompareOptions,
): Promise<number> {
  const { json, in: into, this: span, against } = options;
  const subject = subjectOf(title, options.all);
  return withService(io, async (client) => {
    const answer = await client.call('compareTally', {
      query: { ...subject.query, this: span, against, ...(into === undefined ? {} : { in: into }) },
    });
    if (json) printJson(io, answer);
    else io.out(compareText(answer, paint, { width: io.columns, subject: subject.name }));
    return exit.clean;
  });
}

/** `syndexa tally silent [TITLE]`: what is missing in the numbers, with the money at stake. */
export function silentTally(
  io: Io,
  paint: Paint,
  title: string | undefined,
  { json }: AsJson,
): Promise<number> {
  return withService(io, async (client) => {
    const answer = await client.call('silentTally', { query: title === undefined ? {} : { title } });
    if (json) printJson(io, answer);
    else io.prose(silentText(answer, paint, io.width));
    return answer.findings.length > 0 ? exit.findings : exit.clean;
  });
}

function subjectOf(title: string | undefined, all: boolean | undefined) {
  if (title !== undefined && !all) return { name: title, query: { title } };
  if (title === undefined && all) return { name: 'all titles', query: {} };
  throw new CommandError(
    title === undefined ? 'Name a title, or all of them.' : 'Name a title or all of them, not both.',
    exit.wrongUse,
    'syndexa tally show TITLE, or syndexa tally show --all',
  );
}
