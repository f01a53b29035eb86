import { keptSettings } from '../inventory/dialect.js';
import type { UnitSettings } from '../inventory/model.js';
import type { Profile } from '../network/model.js';
import type { Format } from '../words/words.js';
import type { Settings } from '../words/settings.js';

/** What a new unit is created with: the placement's settings, and where it names none what the network offers. */
export function settingsFor(profile: Profile, settings: Settings, format: Format): UnitSettings {
  const kept = keptSettings(profile);
  const rules = profile.formats[format];
  const content = settings.content ?? rules?.content;
  const skippable = settings.skippable ?? rules?.skippable;
  const refresh =
    settings.refresh ??
    (rules?.refresh ? (rules.refresh.managed ? 'managed' : rules.refresh.min) : undefined);
  return {
    ...(kept.includes('refresh') && refresh !== undefined ? { refresh } : {}),
    ...(kept.includes('content') && content ? { content } : {}),
    ...(kept.includes('reward') && settings.reward ? { reward: settings.reward } : {}),
    ...(kept.includes('skippable') && skippable !== undefined ? { skippable } : {}),
  };
}

/** A setting that the roster names and the network has otherwise. */
export interface SettingDifference {
  setting: keyof UnitSettings;
  roster: unknown;
  partner: unknown;
}

/** The settings in which a placement and a unit differ; what either leaves open is no difference. */
export function settingDifferences(
  profile: Profile,
  settings: Settings,
  unit: UnitSettings,
): SettingDifference[] {
  return keptSettings(profile).flatMap((setting): SettingDifference[] => {
    const [roster, partner] = [settings[setting], unit[setting]];
    if (roster === undefined || partner === undefined || sameSetting(roster, partner)) return [];
    return [{ setting, roster, partner }];
  });
}

function sameSetting(a: unknown, b: unknown): boolean {
  const plain = (value: unknown) =>
    JSON.stringify(
      Array.isArray(value)
        ? [...(value as unknown[])].sort()
        : value && typeof value === 'object'
          ? Object.entries(value).sort()
          : value,
    );
  return plain(a) === plain(b);
}
