import { withPlatformLabels } from '../../core/words/platform-labels.js';
import { counted } from '../../core/text/counted.js';
import type { TitleRecord } from '../../api/titles.js';
import { fieldLines, type FieldLine } from '../../core/roster/field-changes.js';
import type { Settings } from '../../core/words/settings.js';
import type { Title } from '../../core/roster/model.js';
import { platforms } from '../../core/words/words.js';
import { withoutNetwork } from '../../core/roster/without.js';
import { isConfirmed } from '../confirm.js';
import { withService } from '../connect.js';
import { CommandError, exit, type Io, type Paint, printJson } from '../io.js';
import { interruptedText } from '../tree-state.js';
import { wrap } from '../render/places.js';
import { plainTable } from '../render/table.js';
import { boardText } from '../render/board.js';
import { weekLines } from '../render/week.js';

export interface Output {
  json?: boolean;
}

/** Prints an answer: as JSON on request, else as a sentence. */
export function tell(io: Io, options: Output, value: unknown, text: string): number {
  if (options.json) printJson(io, value);
  else io.out(`${text}\n`);
  return exit.clean;
}

/** `syndexa board TITLE`. */
export function board(io: Io, paint: Paint, title: string, options: Output): Promise<number> {
  return withService(io, async (client) => {
    const found = await client.call('board', { params: { title } });
    for (const { path, title: id, interrupted } of await client.call('listTrees'))
      if (interrupted && id === title) io.err(interruptedText(path, interrupted));
    const week = options.json ? [] : (await client.call('tallyWeek', { query: { title } })).units;
    return tell(io, options, found, boardText(found, paint, { width: io.columns, week }).trimEnd());
  });
}

/** `syndexa title list`. */
export function listTitles(io: Io, options: Output): Promise<number> {
  return withService(io, async (client) => {
    const titles = await client.all('listTitles');
    const week = options.json ? [] : (await client.call('tallyWeek', { query: {} })).units;
    const head = [
      'title',
      'name',
      'platforms',
      'networks',
      'placements',
      'IDs',
      ...(week.length > 0 ? ['seven days'] : []),
    ];
    const rows = titles.map(({ id, name, platforms, networks, placements, ids }) => [
      id,
      name,
      withPlatformLabels(platforms.join(', ')),
      networks.join(', '),
      placements,
      ids,
      ...(week.length > 0 ? [weekLines(week.filter((unit) => unit.title === id)).join('\n')] : []),
    ]);
    return tell(
      io,
      options,
      titles,
      titles.length > 0
        ? plainTable({ head, rows, whole: [6] }, io.columns)
        : 'There are no titles yet: add one with syndexa title add NAME.',
    );
  });
}

/** `syndexa title show TITLE`. */
export function showTitle(io: Io, title: string, options: Output): Promise<number> {
  return withService(io, async (client) => {
    const record = await client.call('showTitle', { params: { title } });
    if (options.json) return tell(io, options, record, '');
    io.prose(`${titleText(record)}\n`);
    return exit.clean;
  });
}

function titleText({ id, version, title }: TitleRecord): string {
  const lines = [`${title.name} (${id}), version ${version}, audience ${title.audience}`];
  lines.push(
    `stages: test ${title.stages.test.join(', ') || '—'}; production ${title.stages.production.join(', ') || '—'}`,
  );
  for (const [platform, { identifier, module, tracking }] of Object.entries(title.editions)) {
    lines.push(
      `${withPlatformLabels(platform)}: ${identifier}${module === undefined ? '' : `, module ${module}`}`,
    );
    if (tracking !== undefined) lines.push(`  asks to track: ${tracking}`);
  }
  for (const [name, { format, where, units, settings }] of Object.entries(title.placements)) {
    lines.push(
      `${name}: ${format}${where ? `, ${where}` : ''} (${Object.keys(units).join(', ') || 'no network yet'})`,
    );
    const set = settingsText(settings);
    if (set !== '') lines.push(`  ${set}`);
  }
  return lines.join('\n');
}

/** Settings as their options are given: `refresh 60s; cap 3 per 1d; skippable no`. */
function settingsText({ cap, reward, ...settings }: Settings): string {
  const written = {
    ...settings,
    cap: cap && `${cap.count}${cap.per === undefined ? '' : ` per ${cap.per}`}`,
    reward: reward && `${reward.amount} ${reward.item}`,
  };
  return Object.entries(written)
    .filter(([, value]) => value !== undefined)
    .map(([name, value]) => {
      const said = Array.isArray(value)
        ? value.join(', ')
        : typeof value === 'boolean'
          ? value
            ? 'yes'
            : 'no'
          : value;
      return `${name} ${said}`;
    })
    .join('; ');
}

export interface TitleFields extends Output {
  name?: string;
  android?: string;
  ios?: string;
  module?: string[];
  tracking?: string;
  audience?: Title['audience'];
  test?: string[];
  production?: string[];
}

/** Names the module of an edition: `ios=Kelp (Kelp.xcodeproj)`; nothing behind the sign takes the name out. */
function nameModule(editions: Title['editions'], given: string): void {
  const [word = '', ...rest] = given.split('=');
  const platform = platforms.find((name) => name === word);
  const edition = platform && editions[platform];
  if (!platform || rest.length === 0 || !edition)
    throw new CommandError(
      `--module ${given} does not name the module of an edition of the title.`,
      exit.wrongUse,
      'Write PLATFORM=MODULE, such as ios=Kelp, for a platform that the title has an identifier for.',
    );
  const { module: _, ...others } = edition;
  const module = rest.join('=');
  editions[platform] = module === '' ? others : { ...others, module };
}

function headOf(fields: TitleFields, before?: Title): Partial<Title> {
  const { name, android, ios, tracking, audience, test, production } = fields;
  const identifier = ios ?? before?.editions.ios?.identifier;
  if (tracking !== undefined && identifier === undefined)
    throw new CommandError(
      'The title has no iOS edition, and only iOS asks for permission to track.',
      exit.wrongUse,
      'Give --ios IDENTIFIER too.',
    );
  const editions = {
    ...before?.editions,
    ...(android ? { android: { ...before?.editions.android, identifier: android } } : {}),
    ...(identifier
      ? { ios: { ...before?.editions.ios, identifier, ...(tracking ? { tracking } : {}) } }
      : {}),
  };
  for (const given of fields.module ?? []) nameModule(editions, given);
  const stages = {
    ...(before?.stages ?? { test: ['debug'], production: ['release'] }),
    ...(test ? { test } : {}),
    ...(production ? { production } : {}),
  };
  return { ...(name ? { name } : {}), ...(audience ? { audience } : {}), editions, stages };
}

/** `syndexa title add TITLE`. */
export function addTitle(io: Io, id: string, fields: TitleFields): Promise<number> {
  return withService(io, async (client) => {
    const record = await client.call('addTitle', {
      body: { id, title: { name: fields.name ?? id, ...headOf(fields) } },
    });
    return tell(io, fields, record, `Added ${id}.`);
  });
}

/** `syndexa title set TITLE`. */
export function setTitle(io: Io, id: string, fields: TitleFields): Promise<number> {
  return withService(io, async (client) => {
    const { answer, etag } = await client.callWithVersion('showTitle', { params: { title: id } });
    const record = await client.call('changeTitle', {
      params: { title: id },
      body: headOf(fields, answer.title),
      headers: { 'If-Match': etag },
    });
    return tell(io, fields, record, `Changed ${id}; it is at version ${record.version}.`);
  });
}

/** `syndexa title set TITLE --leave NETWORK`: the network goes with all its IDs, once somebody has seen which. */
export function leaveNetwork(
  io: Io,
  paint: Paint,
  id: string,
  network: string,
  options: Output & { yes?: boolean },
): Promise<number> {
  return withService(io, async (client) => {
    const { answer, etag } = await client.callWithVersion('showTitle', { params: { title: id } });
    const lines = fieldLines(answer.title, withoutNetwork(answer.title, network));
    if (lines.length === 0)
      throw new CommandError(
        `${id} does not use ${network}.`,
        exit.wrongUse,
        `It uses ${Object.keys(answer.title.networks).join(', ') || 'no network'}.`,
      );
    if (!options.json)
      for (const { field, was, is } of lines)
        io.out(`${paint.red('-')} ${field}: ${was ?? ''}${is === undefined ? '' : ` → ${is}`}\n`);
    if (!(await isConfirmed(io, `Remove these ${counted(lines.length, 'field')}?`, options.yes)))
      return exit.refused;
    const record = await client.call('leaveNetwork', {
      params: { title: id, network },
      headers: { 'If-Match': etag },
    });
    const next = `Trees keep this network until syndexa unwire ${network} takes it out.`;
    return tell(
      io,
      options,
      record,
      `${id} no longer uses ${network}; it is at version ${record.version}. ${next}`,
    );
  });
}

/** `syndexa title remove TITLE --yes`. */
export function removeTitle(io: Io, id: string, options: Output & { yes?: boolean }): Promise<number> {
  return withService(io, async (client) => {
    const { answer, etag } = await client.callWithVersion('showTitle', { params: { title: id } });
    const placements = Object.keys(answer.title.placements).length;
    const question = `Remove ${answer.title.name} with its ${counted(placements, 'placement')}?`;
    if (!(await isConfirmed(io, question, options.yes))) return exit.refused;
    await client.call('removeTitle', { params: { title: id }, headers: { 'If-Match': etag } });
    return tell(io, options, { removed: id }, `Removed ${id}.`);
  });
}

/** `syndexa title history TITLE`. */
export function titleHistory(
  io: Io,
  id: string,
  { revert, ...options }: Output & { revert?: string },
): Promise<number> {
  return withService(io, async (client) => {
    if (revert !== undefined) {
      const record = await client.call('revertChange', { params: { title: id, revision: revert }, body: {} });
      return tell(io, options, record, `Reverted change ${revert}; ${id} is at version ${record.version}.`);
    }
    const entries = await client.call('titleHistory', { params: { title: id } });
    const lines = entries.flatMap(({ revision, at, who, path, was, is }) => [
      `${revision}  ${at.slice(0, 16).replace('T', ' ')}  ${who}`,
      ...fieldLines(was, is, path.replace(`titles.${id}`, '').replace(/^\./, '')).map((line) =>
        wrap(changeText(line), io.columns, '    '),
      ),
    ]);
    return tell(io, options, entries, lines.join('\n') || 'Nothing has changed yet.');
  });
}

/** `syndexa title link TITLE DIR`. */
export function linkTitle(io: Io, title: string, path: string, options: Output): Promise<number> {
  return withService(io, async (client) => {
    const tree = await client.call('linkTree', { body: { title, path } });
    return tell(io, options, tree, `Linked ${tree.path} to ${title}.`);
  });
}

/** What happened to a field: `+` for a new one, `−` for one that went, `~` for one that changed. */
function changeText({ field, was, is }: FieldLine): string {
  if (was === undefined) return `+ ${field}: ${is ?? ''}`;
  return is === undefined ? `− ${field} (was ${was})` : `~ ${field}: ${was} → ${is}`;
}
