import { mkdir } from 'node:fs/promises';
import { join } from 'node:path';
import { draftEnding } from '../../api/shipped-profiles.js';
import type { ProfileDraft } from '../../api/networks.js';
import type { BodyOf } from '../../api/routes.js';
import type { platformNames } from '../../core/words/names.js';
import { formatNames } from '../../core/words/names.js';
import type { Client } from '../client.js';
import { homeFolder, withService } from '../connect.js';
import { CommandError, exit, type Io, type Paint, printJson } from '../io.js';
import { sendTree } from '../send-tree.js';
import { writeNamed } from '../write-file.js';

type Answers = BodyOf<'draftNetwork'>;

export interface NewNetworkOptions {
  id?: string;
  name?: string;
  about?: string;
  platform?: (typeof platformNames)[number][];
  format?: (typeof formatNames)[number][];
  appId?: string[];
  unitId?: string[];
  appSample?: string[];
  unitSample?: string[];
  manifestKey?: string;
  plistKey?: string;
  dependency?: string[];
  repository?: string[];
  pod?: string[];
  permission?: string[];
  fromTree?: string;
  only?: string;
  json?: boolean;
}

/** `syndexa network new [FILE]`: a profile drafted from answers, or from a tree. */
export function newNetwork(
  io: Io,
  paint: Paint,
  file: string | undefined,
  options: NewNetworkOptions,
): Promise<number> {
  return withService(io, async (client) => {
    const draft =
      options.fromTree === undefined
        ? await client.call('draftNetwork', { body: await ask(io, options) })
        : await fromTree(client, io, options.fromTree, options);
    if (!draft) return exit.refused;
    if (options.json) printJson(io, draft);
    else if (file === '-') io.out(draft.text);
    else write(io, paint, file ?? (await draftPath(io, draft.id)), draft);
    for (const { field, message, place } of draft.problems)
      io.err(
        `${paint.yellow('▲')} line ${place?.line ?? 1}, column ${place?.column ?? 1}  ${field}: ${message}\n`,
      );
    return exit.clean;
  });
}

/** Where a draft goes that nobody named a file for: beside the other profiles of one's own, never into a tree. */
async function draftPath({ env }: Io, id: string): Promise<string> {
  const folder = join(homeFolder(env), 'profiles');
  await mkdir(folder, { recursive: true });
  return join(folder, `${id}${draftEnding}`);
}

/** A draft from a tree, once somebody has said which of its vendors is the network; null where nobody is. */
async function fromTree(
  client: Client,
  io: Io,
  dir: string,
  { only }: NewNetworkOptions,
): Promise<ProfileDraft | null> {
  const { snapshot } = await sendTree(client, io, dir);
  const draftOf = (stem: string | undefined) =>
    client.call('draftFromTree', { params: { snapshot }, body: stem === undefined ? {} : { only: stem } });
  const first = await draftOf(only);
  if (only !== undefined) return first;
  const vendors = [
    { name: first.stem ?? first.id, declared: first.declared },
    ...first.others.map(({ stem, declared }) => ({ name: stem, declared })),
  ];
  for (const { name, declared } of vendors) {
    const shown = declared.map((item) => `${item.kind} ${item.name}`).join(', ');
    const reply = await io.ask(`Is ${name} an ad network? It has ${shown}. [y/N] `);
    if (reply === null)
      throw new CommandError(
        'There is no terminal to ask which of these is an ad network.',
        exit.wrongUse,
        `Name it: --only ${vendors.map((one) => one.name).join(' or --only ')}.`,
      );
    if (/^y(es)?$/i.test(reply.trim())) return name === first.stem ? first : draftOf(name);
  }
  io.out('Nothing was drafted.\n');
  return null;
}

function write(io: Io, paint: Paint, file: string, draft: ProfileDraft): void {
  writeNamed(io, file, draft.text, { fresh: true });
  io.out(
    `${paint.green('✔')} ${file} is a draft. Look up what it marks, then:\n  syndexa network lint ${file}\n  syndexa network test ${file} --tree DIR\n  syndexa network add ${file}\n`,
  );
  for (const { stem, declared } of draft.others)
    io.out(
      `${paint.dim(`Also unclaimed: ${stem} (${declared.map(({ name }) => name).join(', ')}); draft it with --only ${stem}`)}\n`,
    );
}

/** The answers from flags; missing ones are asked on the terminal, if there is one. */
async function ask(io: Io, options: NewNetworkOptions): Promise<Answers> {
  const word = async (given: string | undefined, question: string) =>
    given ?? ((await io.ask(question))?.trim() || undefined);
  const id = await word(options.id, 'Short name (small letters, digits, dashes): ');
  if (id === undefined)
    throw new CommandError(
      'There is no terminal to ask questions.',
      exit.wrongUse,
      'Use at least --id and --name.',
    );
  const name = (await word(options.name, 'Display name: ')) ?? id;
  const format =
    options.format ??
    picked(await word(undefined, `Formats (${formatNames.join(', ')}), separated by spaces: `), formatNames);
  const ids = async (option: string, words: readonly string[] | undefined, question: string) =>
    pairs(
      option,
      words ?? given(await word(undefined, `${question}, as android=ID ios=ID (empty for none): `)),
    );
  const app = await ids('--app-id', options.appId, 'Your app IDs, as examples');
  const appSamples = await ids(
    '--app-sample',
    options.appSample,
    'App IDs that the network publishes for testing',
  );
  const unit = await ids('--unit-id', options.unitId, 'Your unit IDs, as examples');
  const unitSamples = await ids(
    '--unit-sample',
    options.unitSample,
    'Unit IDs that the network publishes for testing',
  );
  const hasApp = { ...app, ...appSamples };
  const manifestKey = hasApp.android
    ? await word(options.manifestKey, 'Manifest key for the app ID (empty for none): ')
    : options.manifestKey;
  const plistKey = hasApp.ios
    ? await word(options.plistKey, 'Property-list key for the app ID (empty for none): ')
    : options.plistKey;
  return {
    id,
    name,
    app,
    unit,
    'app-samples': appSamples,
    'unit-samples': unitSamples,
    ...(options.about === undefined ? {} : { about: options.about }),
    ...(options.platform === undefined ? {} : { platforms: options.platform }),
    ...(format === undefined ? {} : { formats: format }),
    ...(manifestKey === undefined ? {} : { 'manifest-key': manifestKey }),
    ...(plistKey === undefined ? {} : { 'plist-key': plistKey }),
    dependencies: options.dependency ?? [],
    repositories: options.repository ?? [],
    pods: options.pod ?? [],
    permissions: options.permission ?? [],
  };
}

function given(line: string | undefined): string[] {
  return line?.split(/\s+/).filter(Boolean) ?? [];
}

function picked<Name extends string>(line: string | undefined, known: readonly Name[]): Name[] | undefined {
  const words = given(line);
  const found = known.filter((name) => words.includes(name));
  return found.length > 0 ? found : undefined;
}

function pairs(option: string, words: readonly string[]): Partial<Record<'android' | 'ios', string>> {
  return Object.fromEntries(
    words.map((word) => {
      const [platform, ...rest] = word.split('=');
      if ((platform === 'android' || platform === 'ios') && rest.length > 0)
        return [platform, rest.join('=')];
      throw new CommandError(
        `${option} takes android=ID and ios=ID, not “${word}”.`,
        exit.wrongUse,
        `Write ${option} android=ID ios=ID, or one of the two.`,
      );
    }),
  );
}
