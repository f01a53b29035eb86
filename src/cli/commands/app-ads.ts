import { resolve } from 'node:path';
import { counted } from '../../core/text/counted.js';
import type { AppAdsComparison } from '../../api/app-ads.js';
import { recordText } from '../../core/standards/app-ads.js';
import { withService } from '../connect.js';
import { fetchAppAds, SiteError } from '../../api/fetch-app-ads.js';
import { CommandError, exit, type Io, type Paint, writeDocument, printJson } from '../io.js';
import { wrap } from '../render/places.js';
import { colouredPatch } from '../render/wire.js';
import { readNamed, textToChange } from '../read-file.js';
import { writeNamed } from '../write-file.js';

interface Output {
  json?: boolean;
}

/** `syndexa appads show`: the file that the roster needs. */
export function showAppAds(io: Io, paint: Paint, options: Output): Promise<number> {
  return withService(io, async (client) => {
    const needs = await client.call('appAdsNeeds');
    if (options.json) printJson(io, needs);
    else {
      writeDocument(io, needs.text);
      for (const { missing } of needs.needed) if (missing) io.err(`${paint.yellow('▲')} ${missing}\n`);
      if (needs.needed.length === 0) io.err('No network of any title requires a record.\n');
    }
    return exit.clean;
  });
}

/** `syndexa appads lint FILE`: every fault with its line. */
export function lintAppAds(io: Io, paint: Paint, file: string, options: Output): Promise<number> {
  return withService(io, async (client) => {
    const lint = await client.call('lintAppAds', { body: { text: await readNamed(io, file) } });
    const errors = lint.problems.filter(({ severity }) => severity === 'error').length;
    if (options.json) printJson(io, lint);
    else {
      for (const { line, column, severity, message, fix } of lint.problems) {
        const mark = severity === 'error' ? paint.red('■ error') : paint.yellow('▲ warning');
        io.out(`${file}:${line}:${column}  ${mark}  ${message} ${fix}\n`);
      }
      io.out(
        `${counted(lint.records.length, 'record')}, ${counted(errors, 'error')}, ${counted(lint.problems.length - errors, 'warning')}.\n`,
      );
    }
    return errors > 0 ? exit.findings : exit.clean;
  });
}

/** `syndexa appads merge FILE [--write]`: adds what is missing, and changes nothing else. */
export function mergeAppAds(
  io: Io,
  paint: Paint,
  file: string,
  options: Output & { write?: boolean },
): Promise<number> {
  return withService(io, async (client) => {
    const path = resolve(io.cwd, file);
    const before = (await textToChange(io, file)) ?? '';
    const { text, patch } = await client.call('mergeAppAds', { body: { text: before } });
    if (options.json)
      printJson(io, { file: path, patch, written: options.write === true && text !== before });
    else
      io.out(
        patch === ''
          ? `${paint.green('✔')} ${file} has every record that is needed.\n`
          : colouredPatch(patch, paint),
      );
    if (options.write && text !== before) {
      writeNamed(io, file, text);
      if (!options.json) io.out(`${paint.green('✔')} Written: ${file}\n`);
    } else if (text !== before && !options.json)
      io.out(`${paint.dim('Nothing was written. To write it:')} syndexa appads merge ${file} --write\n`);
    return exit.clean;
  });
}

const siteExits = { 'no-address': exit.wrongUse, unreachable: exit.unreachable, 'no-file': exit.findings };

/** `syndexa appads verify [--url URL]`: what the developer site serves, held against what is needed. */
export function verifyAppAds(io: Io, paint: Paint, options: Output & { url?: string }): Promise<number> {
  return withService(io, async (client) => {
    const { domain } = await client.call('appAdsNeeds');
    const address = options.url ?? (domain === null ? undefined : `https://${domain}/app-ads.txt`);
    if (address === undefined)
      throw new CommandError(
        'The roster has no publisher, so the address of the file is not known.',
        exit.wrongUse,
        'Set the publisher’s domain in the roster, or use --url.',
      );
    const { text, url } = await fetchAppAds(address, true).catch((error: unknown) => {
      if (!(error instanceof SiteError)) throw error;
      throw new CommandError(error.message, siteExits[error.kind], error.fix);
    });
    const [{ comparisons }, { problems }] = await Promise.all([
      client.call('compareAppAds', { body: { text, from: url } }),
      client.call('lintAppAds', { body: { text } }),
    ]);
    const errors = problems.filter(({ severity }) => severity === 'error');
    if (options.json) printJson(io, { url, comparisons, problems });
    else {
      for (const comparison of comparisons) io.out(comparisonText(comparison, paint, io.width));
      for (const { line, message, fix } of errors)
        io.out(`${paint.red('■ error')}  line ${line}  ${message} ${fix}\n`);
    }
    return comparisons.every(({ state }) => state === 'there') && errors.length === 0
      ? exit.clean
      : exit.findings;
  });
}

function comparisonText(
  { networkName, record, state, why, missing, line }: AppAdsComparison['comparisons'][number],
  paint: Paint,
  width: number,
): string {
  const shown = record ? recordText(record) : 'no record can be written';
  const head = {
    there: `${paint.green('✔ there')}    ${networkName}: ${shown}`,
    missing: `${paint.red('■ missing')}  ${networkName}: ${shown}`,
    differs: `${paint.red('■ differs')}  ${networkName}: line ${line ?? '?'} should say ${shown}`,
    'unknown-account': `${paint.yellow('▲ cannot tell')}  ${networkName}: ${missing ?? shown}`,
  }[state];
  return state === 'there' ? `${head}\n` : `${head}\n${wrap(why, width, '    ')}\n`;
}
