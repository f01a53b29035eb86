import { tableText } from '../paint.js';
import { valueAt } from '../../core/text/own-values.js';
import type { TitleRecord } from '../../api/titles.js';
import type { Platform, Stage, Format } from '../../core/words/words.js';
import type { Placement, Settings, Title } from '../../core/roster/model.js';
import { withService } from '../connect.js';
import { CommandError, exit, type Io, type Paint } from '../io.js';
import { interruptedText } from '../tree-state.js';
import { plainTable } from '../render/table.js';
import { boardText } from '../render/board.js';

interface Output {
  json?: boolean;
}

function tell(io: Io, options: Output, value: unknown, text: string): number {
  io.out(options.json ? `${JSON.stringify(value, null, 2)}\n` : `${text}\n`);
  return exit.clean;
}

/** `syndexa board TITLE`. */
export function board(io: Io, paint: Paint, title: string, options: Output): Promise<number> {
  return withService(io, async (client) => {
    const found = await client.call('board', { params: { title } });
    for (const { path, title: id, interrupted } of await client.call('listTrees'))
      if (interrupted && id === title) io.err(interruptedText(path, interrupted));
    return tell(io, options, found, boardText(found, paint, io.columns).trimEnd());
  });
}

/** `syndexa title list`. */
export function listTitles(io: Io, options: Output): Promise<number> {
  return withService(io, async (client) => {
    const titles = await client.call('listTitles');
    const table = plainTable(['title', 'name', 'platforms', 'networks', 'placements', 'IDs']);
    for (const { id, name, platforms, networks, placements, ids } of titles)
      table.push([id, name, platforms.join(', '), networks.join(', '), placements, ids]);
    return tell(
      io,
      options,
      titles,
      titles.length > 0 ? tableText(table) : 'There are no titles yet: add one with syndexa title add NAME.',
    );
  });
}

/** `syndexa title show TITLE`. */
export function showTitle(io: Io, title: string, options: Output): Promise<number> {
  return withService(io, async (client) => {
    const record = await client.call('showTitle', { params: { title } });
    return tell(io, options, record, titleText(record));
  });
}

function titleText({ id, version, title }: TitleRecord): string {
  const lines = [`${title.name} (${id}), version ${version}, audience ${title.audience}`];
  lines.push(
    `stages: test ${title.stages.test.join(', ') || '—'}; production ${title.stages.production.join(', ') || '—'}`,
  );
  for (const [platform, edition] of Object.entries(title.editions))
    lines.push(`${platform}: ${edition.identifier}`);
  for (const [name, { format, where, units }] of Object.entries(title.placements)) {
    lines.push(
      `${name}: ${format}${where ? `, ${where}` : ''} (${Object.keys(units).join(', ') || 'no network yet'})`,
    );
  }
  return lines.join('\n');
}

export interface TitleFields extends Output {
  name?: string;
  android?: string;
  ios?: string;
  tracking?: string;
  audience?: Title['audience'];
  test?: string[];
  production?: string[];
}

function headOf(fields: TitleFields, before?: Title): Partial<Title> {
  const { name, android, ios, tracking, audience, test, production } = fields;
  const identifier = ios ?? before?.editions.ios?.identifier;
  if (tracking !== undefined && identifier === undefined)
    throw new CommandError(
      'The title has no iOS edition, which alone asks for leave to track.',
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

/** `syndexa title remove TITLE --yes`. */
export function removeTitle(io: Io, id: string, options: Output & { yes?: boolean }): Promise<number> {
  return withService(io, async (client) => {
    const { answer, etag } = await client.callWithVersion('showTitle', { params: { title: id } });
    if (!options.yes) {
      const reply = await io.ask(
        `Take out ${answer.title.name} with its ${Object.keys(answer.title.placements).length} placements? [y/N] `,
      );
      if (reply === null)
        throw new CommandError(
          'Nobody is there to confirm.',
          exit.wrongUse,
          'Give --yes to go on without asking.',
        );
      if (!/^y(es)?$/i.test(reply.trim())) return exit.refused;
    }
    await client.call('removeTitle', { params: { title: id }, headers: { 'If-Match': etag } });
    return tell(io, options, { removed: id }, `Took out ${id}.`);
  });
}

/** `syndexa title history TITLE`. */
export function titleHistory(io: Io, id: string, options: Output): Promise<number> {
  return withService(io, async (client) => {
    const entries = await client.call('titleHistory', { params: { title: id } });
    const text = entries.map(
      ({ revision, at, who, path, was, is }) =>
        `${revision}  ${at}  ${who}  ${path}: ${JSON.stringify(was ?? null)} → ${JSON.stringify(is ?? null)}`,
    );
    return tell(io, options, entries, text.join('\n') || 'Nothing has changed yet.');
  });
}

/** `syndexa title link TITLE DIR`. */
export function linkTitle(io: Io, title: string, path: string, options: Output): Promise<number> {
  return withService(io, async (client) => {
    const tree = await client.call('linkTree', { body: { title, path } });
    return tell(io, options, tree, `Linked ${tree.path} to ${title}.`);
  });
}

/** `syndexa placement list TITLE`. */
export function listPlacements(io: Io, id: string, options: Output): Promise<number> {
  return withService(io, async (client) => {
    const { title } = await client.call('showTitle', { params: { title: id } });
    const table = plainTable(['placement', 'format', 'where', 'networks']);
    for (const [name, { format, where, units }] of Object.entries(title.placements))
      table.push([name, format, where ?? '', Object.keys(units).join(', ')]);
    return tell(
      io,
      options,
      title.placements,
      Object.keys(title.placements).length > 0
        ? tableText(table)
        : `${id} has no placements yet: syndexa placement add ${id} NAME --format banner.`,
    );
  });
}

export interface PlacementFields extends Output {
  format?: Format;
  where?: string;
  refresh?: string;
  content?: string[];
  reward?: string;
  network?: string[];
}

function settingsOf(fields: PlacementFields, before: Settings): Settings {
  const { refresh, content, reward } = fields;
  const match = reward === undefined ? null : /^(\d+)\s+(.+)$/.exec(reward);
  if (reward !== undefined && !match)
    throw new CommandError(
      `--reward ${JSON.stringify(reward)} names no amount and item.`,
      exit.wrongUse,
      'Write it as "1 day of storm charts".',
    );
  return {
    ...before,
    ...(refresh ? { refresh } : {}),
    ...(content ? { content: content as Settings['content'] } : {}),
    ...(match ? { reward: { amount: Number(match[1]), item: match[2] ?? '' } } : {}),
  };
}

/** `syndexa placement add|set TITLE NAME`. */
export function putPlacement(
  io: Io,
  id: string,
  name: string,
  fields: PlacementFields,
  isNew: boolean,
): Promise<number> {
  return withService(io, async (client) => {
    const { title, placementVersions } = await client.call('showTitle', { params: { title: id } });
    const before = valueAt(title.placements, name);
    const format = fields.format ?? before?.format;
    if (format === undefined)
      throw new CommandError(
        'The format of the placement is not given.',
        exit.wrongUse,
        'Give --format banner (or interstitial, rewarded, native, splash, video, notification).',
      );
    const networks = Object.fromEntries(
      (fields.network ?? []).map((network) => [network, valueAt(before?.units, network) ?? {}]),
    );
    const placement: Placement = {
      format,
      ...((fields.where ?? before?.where) ? { where: fields.where ?? before?.where } : {}),
      settings: settingsOf(fields, before?.settings ?? {}),
      units: { ...before?.units, ...networks },
    };
    const headers: Record<string, string> = isNew
      ? { 'If-None-Match': '*' }
      : { 'If-Match': `"v${valueAt(placementVersions, name) ?? 0}"` };
    const record = await client.call('putPlacement', {
      params: { title: id, placement: name },
      body: placement,
      headers,
    });
    return tell(io, fields, record, `${isNew ? 'Added' : 'Changed'} ${name} (${format}).`);
  });
}

/** `syndexa placement remove TITLE NAME`. */
export function removePlacement(io: Io, id: string, name: string, options: Output): Promise<number> {
  return withService(io, async (client) => {
    const { placementVersions } = await client.call('showTitle', { params: { title: id } });
    await client.call('removePlacement', {
      params: { title: id, placement: name },
      headers: { 'If-Match': `"v${valueAt(placementVersions, name) ?? 0}"` },
    });
    return tell(io, options, { removed: name }, `Took out ${name}.`);
  });
}

/** `syndexa id list TITLE`. */
export function listIds(io: Io, id: string, options: Output): Promise<number> {
  return withService(io, async (client) => {
    const { rows } = await client.call('board', { params: { title: id } });
    const cells = rows.flatMap(({ placement, network, cells: own }) =>
      own.map(({ platform, stage, id: value, record }) => ({
        placement,
        network,
        platform,
        stage,
        id: value,
        record,
      })),
    );
    const table = plainTable(['placement', 'network', 'platform', 'stage', 'ID', 'state']);
    for (const { placement, network, platform, stage, id: value, record } of cells)
      table.push([placement ?? '(app)', network, platform, stage, value ?? '—', record]);
    return tell(
      io,
      options,
      cells,
      cells.length > 0 ? tableText(table) : `${id} has no IDs yet: syndexa id set puts the first one in.`,
    );
  });
}

export interface IdFields extends Output {
  network: string;
  platform: Platform;
  stage: Stage;
  placement?: string;
  credential?: string;
}

/** `syndexa id set TITLE ID` and `syndexa id unset TITLE`; the value is taken exactly as it is given. */
export function setId(io: Io, id: string, value: string | null, fields: IdFields): Promise<number> {
  const { network, platform, stage, placement, credential } = fields;
  return withService(io, async (client) => {
    const { etag } = await client.callWithVersion('showTitle', { params: { title: id } });
    const record = await client.call('setId', {
      params: { title: id },
      body: {
        network,
        platform,
        stage,
        placement: placement ?? null,
        value,
        ...(credential === undefined ? {} : { credential }),
      },
      headers: { 'If-Match': etag },
    });
    const spot = `${credential ?? placement ?? 'the app ID'} on ${network} (${platform}, ${stage})`;
    return tell(io, fields, record, value === null ? `Took out ${spot}.` : `Set ${spot} to ${value}.`);
  });
}
