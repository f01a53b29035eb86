import { readPattern } from '../text/patterns.js';
import { valueAt } from '../text/own-values.js';
import type { AppFields, Inventory, UnitFields } from '../network/exchange.js';
import { type Profile } from '../network/model.js';
import { Duration, Format, Platform, platforms } from '../words/words.js';
import { UnitStatus, type InventoryApp, type InventoryUnit, type UnitSettings } from './model.js';

type Words = Inventory['words'];
type Record_ = Record<string, unknown>;

/** What a row says, or why it cannot be taken over. */
export type Decoded<Value> = { value: Value; message: null } | { value: null; message: string };

/** Reads the units of a list in the network's own words; what a profile says is computed once for all rows. */
export function unitDecoder(profile: Profile, fields: UnitFields): (row: Record_) => Decoded<InventoryUnit> {
  const words = profile.inventory?.words ?? noWords;
  const kind = profile.ids.unit;
  const pattern = kind && readPattern(kind.pattern);
  const only = onlyPlatform(profile);
  const platformOf = meanings(words.platform, Platform.options);
  const formatOf = meanings(words.format, Format.options);
  const statusOf = meanings(words.status, UnitStatus.options);
  const text = (row: Record_, field: string | undefined) => (field === undefined ? null : textOf(row, field));
  return (row) => {
    const id = textOf(row, fields.id);
    if (id === null) return odd(`it has no ${fields.id}`);
    const groups = pattern?.groupsOf(id);
    if (pattern && !groups)
      return odd(`${JSON.stringify(id.slice(0, 60))} is no ${kind?.label ?? 'unit ID'} of ${profile.name}`);
    const shown = groups?.get('platform');
    const own = shown === undefined ? undefined : valueAt(kind?.platforms, shown);
    const formatWord = textOf(row, fields.format);
    const format = formatOf(formatWord);
    if (formatWord !== null && format === undefined)
      return odd(`the profile does not define the format “${formatWord.slice(0, 60)}”`);
    return {
      message: null,
      value: {
        id,
        name: textOf(row, fields.name) ?? '',
        format: format ?? null,
        platform: own ?? platformOf(text(row, fields.platform)) ?? only ?? null,
        app: text(row, fields.app),
        status: statusOf(text(row, fields.status)) ?? null,
        servesFrom: text(row, fields['serves-from']),
        settings: decodeSettings(fields, row),
      },
    };
  };
}

/** Reads one unit in the network's own terms. */
export function decodeUnit(profile: Profile, fields: UnitFields, row: Record_): Decoded<InventoryUnit> {
  return unitDecoder(profile, fields)(row);
}

/** Writes a unit in the network's own words; an ID that is not yet known is left out. */
export function encodeUnit(
  profile: Profile,
  fields: UnitFields,
  unit: Omit<InventoryUnit, 'id'> & { id?: string },
): Record_ {
  const words = profile.inventory?.words ?? noWords;
  const { settings } = unit;
  const row: [string | undefined, unknown][] = [
    [fields.id, unit.id],
    [fields.name, unit.name],
    [fields.format, unit.format && wordFor(words.format, unit.format)],
    [fields.platform, unit.platform && wordFor(words.platform, unit.platform)],
    [fields.app, unit.app],
    [fields.status, unit.status && wordFor(words.status, unit.status)],
    [fields['serves-from'], unit.servesFrom],
    [fields.refresh, settings.refresh],
    [fields.content, settings.content],
    [fields['reward-amount'], settings.reward?.amount],
    [fields['reward-item'], settings.reward?.item],
    [fields.skippable, settings.skippable],
  ];
  return Object.fromEntries(
    row.filter(([name, value]) => name !== undefined && value !== undefined && value !== null),
  ) as Record_;
}

/** Reads an app in the network's own words. */
export function decodeApp(profile: Profile, fields: AppFields, row: Record_): Decoded<InventoryApp> {
  const words = profile.inventory?.words ?? noWords;
  const id = textOf(row, fields.id);
  if (id === null) return odd(`it has no ${fields.id}`);
  const kind = profile.ids.app;
  if (kind && !readPattern(kind.pattern).matches(id))
    return odd(`${JSON.stringify(id.slice(0, 60))} is no ${kind.label} of ${profile.name}`);
  const terms = fields.terms === undefined ? undefined : valueAt(row, fields.terms);
  return {
    message: null,
    value: {
      id,
      platform:
        meanings(words.platform, Platform.options)(textOf(row, fields.platform)) ??
        onlyPlatform(profile) ??
        null,
      identifier: textOf(row, fields.identifier) ?? '',
      name: textOf(row, fields.name) ?? '',
      status: fields.status === undefined ? null : textOf(row, fields.status),
      audience: fields.audience === undefined ? null : textOf(row, fields.audience),
      terms: typeof terms === 'boolean' ? terms : null,
    },
  };
}

/** Writes an app in the network's own words. */
export function encodeApp(
  profile: Profile,
  fields: AppFields,
  app: Omit<InventoryApp, 'id'> & { id?: string },
): Record_ {
  const words = profile.inventory?.words ?? noWords;
  const row: [string | undefined, unknown][] = [
    [fields.id, app.id],
    [fields.platform, app.platform && wordFor(words.platform, app.platform)],
    [fields.identifier, app.identifier],
    [fields.name, app.name],
    [fields.status, app.status],
    [fields.audience, app.audience],
    [fields.terms, app.terms],
  ];
  return Object.fromEntries(
    row.filter(([name, value]) => name !== undefined && value !== undefined && value !== null),
  ) as Record_;
}

/** The settings that a network keeps of a unit, out of its row; what makes no sense is left out. */
function decodeSettings(fields: UnitFields, row: Record_): UnitSettings {
  const at = (name: keyof UnitFields) => {
    const field = fields[name];
    return field === undefined ? undefined : valueAt(row, field);
  };
  const refresh = at('refresh');
  const content = at('content');
  const amount = Number(at('reward-amount'));
  const item = at('reward-item');
  const skippable = at('skippable');
  const kinds = (
    typeof content === 'string' ? content.split(/[\s,;|]+/) : Array.isArray(content) ? content : []
  )
    .map(String)
    .filter((kind): kind is 'text' | 'image' | 'video' => /^(text|image|video)$/.test(kind));
  return {
    ...(typeof refresh === 'string' &&
    (/^(managed|off)$/.test(refresh) || Duration.safeParse(refresh).success)
      ? { refresh }
      : {}),
    ...(kinds.length > 0 ? { content: kinds } : {}),
    ...(Number.isInteger(amount) && amount > 0 && typeof item === 'string' && item !== ''
      ? { reward: { amount, item } }
      : {}),
    ...(typeof skippable === 'boolean' ? { skippable } : {}),
  };
}

/** Which settings a network keeps of a unit, by what its profile says of its fields. */
export function keptSettings({ inventory }: Profile): (keyof UnitSettings)[] {
  const fields = inventory?.http?.units.fields;
  if (!fields) return [];
  const names: [keyof UnitSettings, string | undefined][] = [
    ['refresh', fields.refresh],
    ['content', fields.content],
    ['reward', fields['reward-amount'] && fields['reward-item']],
    ['skippable', fields.skippable],
  ];
  return names.flatMap(([name, field]) => (field === undefined ? [] : [name]));
}

const noWords: Words = { platform: {}, format: {}, status: {} };

function odd(message: string): { value: null; message: string } {
  return { value: null, message };
}

/** A value as text: what is no text or number counts as not there. */
function textOf(row: Record_, field: string): string | null {
  const value = valueAt(row, field);
  if (typeof value === 'number') return String(value);
  if (typeof value !== 'string') return null;
  const text = value.trim();
  return text === '' ? null : text;
}

/** What the words of a network mean; without words in the profile our own are understood. */
function meanings<Name extends string>(
  words: Partial<Record<Name, string[]>>,
  names: readonly Name[],
): (written: string | null) => Name | undefined {
  const known = new Map<string, Name>(names.map((name) => [name, name]));
  for (const name of names) for (const word of words[name] ?? []) known.set(word.toLowerCase(), name);
  return (written) => (written === null ? undefined : known.get(written.toLowerCase()));
}

function wordFor<Name extends string>(words: Partial<Record<Name, string[]>>, name: Name): string {
  return words[name]?.[0] ?? name;
}

/** A network that serves one platform only need not say so in every row. */
function onlyPlatform(profile: Profile): Platform | undefined {
  const served = platforms.filter((platform) => profile[platform]);
  return served.length === 1 ? served[0] : undefined;
}
