import { writeFile } from 'node:fs/promises';
import { resolve } from 'node:path';
import type { ProfileDraft } from '../../api/networks.js';
import type { BodyOf } from '../../api/routes.js';
import type { platformNames } from '../../core/words/names.js';
import { formatNames } from '../../core/words/names.js';
import type { Client } from '../client.js';
import { withService } from '../connect.js';
import { CommandError, exit, type Io, type Paint } from '../io.js';
import { sendTree } from '../send-tree.js';

type Answers = BodyOf<'draftNetwork'>;

export interface NewNetworkOptions {
  id?: string;
  name?: string;
  about?: string;
  platform?: (typeof platformNames)[number][];
  format?: (typeof formatNames)[number][];
  appId?: string[];
  unitId?: string[];
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
        : await fromTree(client, io, options.fromTree, options.only);
    if (options.json) io.out(`${JSON.stringify(draft, null, 2)}\n`);
    else if (file === '-') io.out(draft.text);
    else await write(io, paint, file ?? `${draft.id}.yaml`, draft);
    for (const { field, message, place } of draft.problems)
      io.err(
        `${paint.yellow('▲')} line ${place?.line ?? 1}, column ${place?.column ?? 1}  ${field}: ${message}\n`,
      );
    return exit.clean;
  });
}

async function fromTree(client: Client, io: Io, dir: string, only?: string): Promise<ProfileDraft> {
  const { snapshot } = await sendTree(client, io, dir);
  return client.call('draftFromTree', {
    params: { snapshot },
    body: only === undefined ? {} : { only },
  });
}

async function write(io: Io, paint: Paint, file: string, draft: ProfileDraft): Promise<void> {
  const path = resolve(io.cwd, file);
  try {
    await writeFile(path, draft.text, { flag: 'wx' });
  } catch (error) {
    const there = (error as NodeJS.ErrnoException).code === 'EEXIST';
    throw new CommandError(
      there ? `${file} is there already, and is left as it is.` : `${file}: ${(error as Error).message}.`,
      there ? exit.refused : exit.wrongUse,
      'Name another file.',
    );
  }
  io.out(
    `${paint.green('✔')} ${file} is a draft. Look up what it marks, then:\n  syndexa network lint ${file}\n  syndexa network test ${file} --tree DIR\n  syndexa network add ${file}\n`,
  );
  for (const { stem, declared } of draft.others)
    io.out(
      `${paint.dim(`Also unclaimed: ${stem} (${declared.map(({ name }) => name).join(', ')}); draft it with --only ${stem}`)}\n`,
    );
}

/** What the flags say; what they leave open is asked when somebody is there to answer. */
async function ask(io: Io, options: NewNetworkOptions): Promise<Answers> {
  const word = async (given: string | undefined, question: string) =>
    given ?? ((await io.ask(question))?.trim() || undefined);
  const id = await word(options.id, 'Short name (small letters, digits, dashes): ');
  if (id === undefined)
    throw new CommandError('Nobody is there to answer.', exit.wrongUse, 'Give at least --id and --name.');
  const name = (await word(options.name, 'Name that people see: ')) ?? id;
  const format =
    options.format ??
    picked(await word(undefined, `Formats (${formatNames.join(', ')}), with blanks between: `), formatNames);
  const app = pairs(
    '--app-id',
    options.appId ?? given(await word(undefined, 'Test app IDs, as android=ID ios=ID (empty for none): ')),
  );
  const unit = pairs(
    '--unit-id',
    options.unitId ?? given(await word(undefined, 'Test unit IDs, as android=ID ios=ID (empty for none): ')),
  );
  const manifestKey = app.android
    ? await word(options.manifestKey, 'Key in the manifest that takes the app ID (empty for none): ')
    : options.manifestKey;
  const plistKey = app.ios
    ? await word(options.plistKey, 'Key in the property list that takes the app ID (empty for none): ')
    : options.plistKey;
  return {
    id,
    name,
    app,
    unit,
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
        `Write ${option} android=${word}.`,
      );
    }),
  );
}
