import { basename, resolve } from 'node:path';
import { counted } from '../../core/text/counted.js';
import { withService } from '../connect.js';
import { CommandError, exit, type Io, type Paint, printJson } from '../io.js';
import { wrap } from '../render/places.js';
import { writePatch } from '../render/wire.js';
import { sendTree } from '../send-tree.js';
import { isBinaryPlist } from '../../core/formats/plist/binary.js';
import { bytesIfThere, listOfFile, utf8Of } from '../read-file.js';
import { writeNamed } from '../write-file.js';

interface Output {
  json?: boolean;
}

/** `syndexa attribution show`: the identifiers that the networks of all titles ask for. */
export function showAttribution(io: Io, paint: Paint, options: Output): Promise<number> {
  return withService(io, async (client) => {
    const needs = await client.call('attributionNeeds');
    if (options.json) printJson(io, needs);
    else if (needs.needed.length === 0) io.out('No network of any title requires an identifier.\n');
    else
      for (const { networkName, ids, why, list } of needs.needed) {
        io.out(`${paint.bold(networkName)}${list === null ? '' : `  ${paint.dim(list)}`}\n`);
        io.out(`${wrap(why, io.width, '  ')}\n${ids.map((id) => `  ${id}\n`).join('')}`);
      }
    return exit.clean;
  });
}

/** `syndexa attribution lint FILE`: what a published list holds, and what is wrong with it. */
export function lintAttribution(io: Io, paint: Paint, file: string, options: Output): Promise<number> {
  return withService(io, async (client) => {
    const lint = await client.call('lintAttribution', { body: { text: await listOfFile(io, file) } });
    if (options.json) printJson(io, lint);
    else {
      for (const { line, column, message, fix } of lint.problems)
        io.out(`${file}:${line}:${column}  ${paint.red('■')} ${message} ${fix}\n`);
      io.out(`${counted(lint.ids.length, 'identifier')}, ${counted(lint.problems.length, 'fault')}.\n`);
    }
    return lint.problems.length > 0 ? exit.findings : exit.clean;
  });
}

/** `syndexa attribution merge FILE [--list FILE…] [--write]`: adds what is missing, and changes nothing else. */
export function mergeAttribution(
  io: Io,
  paint: Paint,
  file: string,
  options: Output & { list?: string[]; write?: boolean },
): Promise<number> {
  return withService(io, async (client) => {
    const path = resolve(io.cwd, file);
    const bytes = (await bytesIfThere(io, file)) ?? new Uint8Array();
    if (isBinaryPlist(bytes))
      throw new CommandError(
        `${file} is a binary property list, which cannot be edited in place.`,
        exit.wrongUse,
        `Convert it to XML first: plistutil -f xml -i ${file} -o ${file}. With --list, it can be read as it is.`,
      );
    const text = utf8Of(bytes, file);
    const lists = await Promise.all((options.list ?? []).map((name) => listOfFile(io, name)));
    const merged = await client.call('mergeAttribution', { body: { text, path: basename(file), lists } });
    const changed = merged.text !== text;
    if (options.write && changed) writeNamed(io, file, merged.text);
    if (options.json)
      printJson(io, { file: path, patch: merged.patch, written: options.write === true && changed });
    else if (!changed)
      io.out(
        `${paint.green('✔')} ${file} names ${counted(merged.ids.length, 'identifier')}; none is missing.\n`,
      );
    else {
      writePatch(io, merged.patch, paint);
      io.out(
        options.write
          ? `${paint.green('✔')} Written: ${file}\n`
          : `${paint.dim('Nothing was written. To write it, add')} --write\n`,
      );
    }
    return exit.clean;
  });
}

/** `syndexa attribution compare DIR`: compares the list of a tree with the identifiers that networks require. */
export function compareAttribution(
  io: Io,
  paint: Paint,
  dir: string,
  options: Output & { title?: string; list?: string[] },
): Promise<number> {
  return withService(io, async (client) => {
    const lists = await Promise.all((options.list ?? []).map((name) => listOfFile(io, name)));
    const { snapshot } = await sendTree(client, io, dir);
    const found = await client.call('compareAttribution', {
      params: { snapshot },
      body: { title: options.title ?? null, lists },
    });
    if (options.json) printJson(io, found);
    else {
      for (const { id, networks, variants } of found.missing)
        io.prose(
          `${paint.red('□ missing')}  ${id}  ${paint.dim(`${networks.join(', ') || 'a list'}; missing in ${variants.join(', ')}`)}\n`,
        );
      for (const text of found.odd) io.out(`${paint.yellow('▲ odd')}      ${text}\n`);
      for (const id of found.more)
        io.out(`${paint.dim('· more')}     ${id}  ${paint.dim('no network here requires it')}\n`);
      io.out(`${counted(found.there, 'identifier')} in the tree, ${found.missing.length} missing.\n`);
    }
    return found.missing.length + found.odd.length > 0 ? exit.findings : exit.clean;
  });
}
