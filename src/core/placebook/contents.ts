import { putAt, valueAt } from '../text/own-values.js';
import type { Profile } from '../network/model.js';
import type { Platform, Stage } from '../words/words.js';
import { expectedIds } from '../roster/expected.js';
import type { Settings } from '../words/settings.js';
import type { Title } from '../roster/model.js';
import {
  camelCase,
  networksOf,
  pascalCase,
  upperCase,
  type PlacebookStage,
} from '../languages/common/placebook.js';

/** What a placebook says for one platform and stage. */
export function placebookContents(
  title: Title,
  profiles: readonly Profile[],
  platform: Platform,
  stage: Stage,
): PlacebookStage {
  const expected = expectedIds(title, profiles, platform).filter((item) => item.stage === stage);
  const apps: Record<string, string> = {};
  for (const { kind, network, id } of expected) {
    const place = profiles.find((profile) => profile.id === network)?.[platform]?.['app-id']?.place;
    if (kind === 'app' && place === 'code' && id !== undefined) putAt(apps, network, id);
  }
  const names = new Set(expected.flatMap(({ placement }) => placement ?? []));
  const placements = [...names].flatMap((name) => {
    const placement = valueAt(title.placements, name);
    if (!placement) return [];
    const units = expected.flatMap((item) =>
      item.placement === name && item.id !== undefined ? [[item.network, item.id] as const] : [],
    );
    return [
      {
        name,
        format: placement.format,
        ...(placement.where ? { where: placement.where } : {}),
        units: Object.fromEntries(units),
        settings: filledSettings(
          placement.settings,
          units.map(([network]) => network),
        ),
      },
    ];
  });
  const devices: Record<string, readonly string[]> = {};
  for (const network of networksOf([{ apps, placements, devices }])) {
    const known = stage === 'test' ? valueAt(title.networks, network)?.[platform]?.test?.devices : undefined;
    if (known && known.length > 0) putAt(devices, network, known);
  }
  return { apps, placements, devices };
}

/** A placement's settings; in the order of networks only those that fill it here are left. */
function filledSettings(settings: Settings, networks: readonly string[]): Settings {
  if (!settings.fallback) return settings;
  return { ...settings, fallback: settings.fallback.filter((network) => networks.includes(network)) };
}

/** Whether there is anything for a placebook to say. */
export function needsPlacebook(title: Title, profiles: readonly Profile[], platform: Platform): boolean {
  return (['test', 'production'] as const).some((stage) => {
    const { apps, placements } = placebookContents(title, profiles, platform, stage);
    return Object.keys(apps).length > 0 || placements.length > 0;
  });
}

/**
 * The networks that a placebook is written for: those to wire, and those that it names already. All of them when
 * the wiring is for all.
 */
export function placebookProfiles(
  all: readonly Profile[],
  toWire: readonly Profile[],
  standing: readonly string[],
): Profile[] {
  if (toWire.length === all.length) return [...all];
  return all.filter(
    (profile) => toWire.includes(profile) || standing.some((text) => namesNetwork(text, profile.id)),
  );
}

function namesNetwork(text: string, id: string): boolean {
  return (
    text.includes(`"${id}"`) ||
    text.includes(`'${id}'`) ||
    text.includes(`PlacebookNetwork${pascalCase(id)}`) ||
    new RegExp(`\\benum PlacebookNetwork\\s*\\{[^}]*\\b(?:${camelCase(id)}|${pascalCase(id)})\\b`).test(
      text,
    ) ||
    new RegExp(`\\b${upperCase(id)}\\b`).test(text)
  );
}
