import { valueAt } from '../../core/text/own-values.js';
import type { Format } from '../../core/words/words.js';
import type { Settings } from '../../core/words/settings.js';
import type { Placement } from '../../core/roster/model.js';
import { withService } from '../connect.js';
import { CommandError, exit, type Io } from '../io.js';
import { plainTable } from '../render/table.js';
import { type Output, tell } from './titles.js';

/** `syndexa placement list TITLE`. */
export function listPlacements(io: Io, id: string, options: Output): Promise<number> {
  return withService(io, async (client) => {
    const { title } = await client.call('showTitle', { params: { title: id } });
    const rows = Object.entries(title.placements).map(([name, { format, where, units }]) => [
      name,
      format,
      where ?? '',
      Object.keys(units).join(', '),
    ]);
    return tell(
      io,
      options,
      title.placements,
      Object.keys(title.placements).length > 0
        ? plainTable({ head: ['placement', 'format', 'where', 'networks'], rows }, io.columns)
        : `${id} has no placements yet: syndexa placement add ${id} NAME --format banner.`,
    );
  });
}

export interface PlacementFields extends Output {
  format?: Format;
  where?: string;
  refresh?: string;
  first?: number;
  every?: number;
  content?: string[];
  reward?: string;
  size?: Settings['size'];
  anchor?: Settings['anchor'];
  cap?: string;
  timeout?: string;
  skippable?: 'yes' | 'no';
  endCard?: 'yes' | 'no';
  network?: string[];
  fallback?: string[];
  clear?: (keyof Settings)[];
}

/** The settings of a placement with the given changes, and without the cleared ones. */
function settingsOf(fields: PlacementFields, before: Settings): Settings {
  const { refresh, first, every, content, size, anchor, timeout, skippable, endCard, fallback } = fields;
  const given: Settings = {
    refresh,
    first,
    every,
    size,
    anchor,
    timeout,
    fallback,
    content: content as Settings['content'],
    cap: fields.cap === undefined ? undefined : capOf(fields.cap),
    reward: fields.reward === undefined ? undefined : rewardOf(fields.reward),
    skippable: skippable && skippable === 'yes',
    'end-card': endCard && endCard === 'yes',
  };
  const kept = Object.entries({ ...before, ...defined(given) }).filter(
    ([name]) => !fields.clear?.includes(name as keyof Settings),
  );
  return Object.fromEntries(kept);
}

function defined(settings: Settings): Settings {
  return Object.fromEntries(Object.entries(settings).filter(([, value]) => value !== undefined));
}

function rewardOf(text: string): Settings['reward'] {
  const [, amount, item = ''] = /^(\d+)\s+(.+)$/.exec(text) ?? [];
  if (amount !== undefined) return { amount: Number(amount), item };
  throw new CommandError(
    `--reward ${JSON.stringify(text)} is not an amount and an item.`,
    exit.wrongUse,
    'Write it as "1 day of storm charts".',
  );
}

function capOf(text: string): Settings['cap'] {
  const [, count, per] = /^(\d+)(?:\s+per\s+(\S+))?$/.exec(text.trim()) ?? [];
  if (count !== undefined) return { count: Number(count), ...(per === undefined ? {} : { per }) };
  throw new CommandError(
    `--cap ${JSON.stringify(text)} is not a count with a period.`,
    exit.wrongUse,
    'Write it as "3 per 1d", or as 3 for no period.',
  );
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
        'The placement needs a format.',
        exit.wrongUse,
        'Use --format banner (or interstitial, rewarded, native, splash, video, notification).',
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
    return tell(io, options, { removed: name }, `Removed ${name}.`);
  });
}
