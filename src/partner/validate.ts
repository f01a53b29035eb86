import { valueAt } from '../core/text/own-values.js';
import { settingFaults } from '../core/roster/settings.js';
import { keptSettings } from '../core/inventory/dialect.js';
import type { InventoryApp, InventoryUnit, UnitSettings } from '../core/inventory/model.js';
import type { Profile } from '../core/network/model.js';
import type { Format, Platform } from '../core/words/words.js';
import { offers } from '../core/network/recognise.js';
import { Refusal, type RefusalCode } from './errors.js';
import type { Books } from './store/books.js';
import type { Account, AppRow } from './store/rows.js';

const identifierShape = /^[A-Za-z0-9][A-Za-z0-9_-]*(\.[A-Za-z0-9_-]+)+$/;

/** An app that may be added, or a refusal that names the field. */
export function checkedApp(
  books: Books,
  profile: Profile,
  account: Account,
  app: Omit<InventoryApp, 'id' | 'status' | 'terms'>,
): { platform: Platform; identifier: string; name: string; audience: string } {
  const fields = profile.inventory?.http?.apps?.fields;
  const { platform, identifier, name } = app;
  if (!platform || !profile[platform])
    throw new Refusal('platform-unknown', `${profile.name} serves no such platform.`, {
      field: fields?.platform,
    });
  if (!identifierShape.test(identifier))
    throw new Refusal('name-missing', 'The application identifier is missing or no identifier.', {
      field: fields?.identifier,
    });
  if (name.trim() === '' || name.length > 100)
    throw new Refusal('name-missing', 'The name is missing, or longer than 100 characters.', {
      field: fields?.name,
    });
  const there = books.appByIdentifier(profile.id, platform, identifier);
  if (there) {
    const own = there.account === account.id;
    throw new Refusal(
      own ? 'identifier-taken' : 'identifier-held',
      own
        ? `This account has ${identifier} on ${platform} already, as ${there.id}.`
        : `Another account holds ${identifier} on ${platform}.`,
      { field: fields?.identifier },
    );
  }
  return { platform, identifier, name, audience: app.audience ?? 'general' };
}

/** A unit that may be added, or a refusal that names the field. */
export function checkedUnit(
  books: Books,
  profile: Profile,
  account: Account,
  unit: Omit<InventoryUnit, 'id' | 'status' | 'servesFrom'>,
): { app: AppRow | undefined; platform: Platform; format: Format; name: string; settings: UnitSettings } {
  const http = profile.inventory?.http;
  const fields = http?.units.fields;
  const { format, name, settings } = unit;
  if (name.trim() === '' || name.length > 80)
    throw new Refusal('name-missing', 'The name is missing, or longer than 80 characters.', {
      field: fields?.name,
    });
  let app: AppRow | undefined;
  if (http?.apps && fields?.app !== undefined) {
    app = unit.app === null ? undefined : books.app(profile.id, unit.app);
    if (!app || app.account !== account.id)
      throw new Refusal('app-unknown', 'The unit names no app of this account.', { field: fields.app });
  }
  const platform = app?.platform ?? unit.platform;
  if (!platform || !profile[platform] || (unit.platform && unit.platform !== platform))
    throw new Refusal('platform-unknown', 'The platform is missing, or not that of the app.', {
      field: fields?.platform,
    });
  if (!format)
    throw new Refusal('format-unknown', 'The format is missing or not known.', { field: fields?.format });
  if (!offers(profile, format, platform))
    throw new Refusal('format-not-offered', `${profile.name} offers no ${format} on ${platform}.`, {
      field: fields?.format,
    });
  checkSettings(profile, format, settings);
  return { app, platform, format, name: name.trim(), settings };
}

/** Refuses settings that a strict network would refuse. */
export function checkSettings(profile: Profile, format: Format, settings: UnitSettings): void {
  const rules = profile.formats[format];
  const kept = keptSettings(profile);
  const fields = profile.inventory?.http?.units.fields;
  if (!rules) return;
  if (kept.includes('content') && rules.content && (settings.content ?? []).length === 0)
    throw new Refusal('content-missing', 'At least one content kind has to be chosen.', {
      field: fields?.content,
      allowed: rules.content,
    });
  if (kept.includes('refresh') && rules.refresh && settings.refresh === undefined)
    throw new Refusal('refresh-out-of-bounds', 'A refresh time has to be chosen: managed, off or a time.', {
      field: fields?.refresh,
    });
  if (kept.includes('reward') && rules.reward && !settings.reward)
    throw new Refusal('reward-missing', 'A rewarded unit names what is given, and how much of it.', {
      field: fields?.['reward-item'],
    });
  const codes: Record<string, RefusalCode> = { refresh: 'refresh-out-of-bounds', content: 'content-unknown' };
  const [fault] = Object.entries(settingFaults(settings, format, rules, profile.name));
  if (fault)
    throw new Refusal(valueAt(codes, fault[0]) ?? 'setting-refused', `${fault[1].message} ${fault[1].fix}`, {
      field: fault[0],
    });
}
