import { platformLabels } from '../words/platform-labels.js';
import { valueAt } from '../text/own-values.js';
import type { FieldProblem } from '../formats/yaml/read.js';
import { durationSeconds } from '../words/durations.js';
import type { Profile } from '../network/model.js';
import { platforms, type Format } from '../words/words.js';
import { offers } from '../network/recognise.js';
import type { Settings } from '../words/settings.js';
import type { Placement } from './model.js';

type FormatRules = NonNullable<Profile['formats'][Format]>;
type Fault = Pick<FieldProblem, 'message'> & { fix: string };

/** What is wrong with a placement's settings: on their own, and for each network that fills it. */
export function settingProblems(
  name: string,
  placement: Placement,
  known: ReadonlyMap<string, Profile>,
): FieldProblem[] {
  const { settings, format } = placement;
  const own = Object.entries(alone(settings, format, known)).map(([field, fault]) => ({
    field: `placements.${name}.settings.${field}`,
    ...fault,
  }));
  return [
    ...own,
    ...Object.keys(placement.units).flatMap((network) => {
      const profile = known.get(network);
      return profile ? forNetwork(name, placement, profile) : [];
    }),
  ];
}

/** A format with its article: a banner, an interstitial. */
function aFormat(format: Format): string {
  return `${/^[aeiou]/.test(format) ? 'an' : 'a'} ${format}`;
}

function capital(text: string): string {
  return text.charAt(0).toUpperCase() + text.slice(1);
}

/** Faults that do not depend on a network, by setting. */
function alone(
  settings: Settings,
  format: Format,
  known: ReadonlyMap<string, Profile>,
): Record<string, Fault> {
  const faults: Record<string, Fault> = {};
  if (settings.content?.length === 0)
    faults.content = {
      message: 'There is no content kind, so nothing can be shown.',
      fix: 'Name at least one of text, image, video.',
    };
  const only: [keyof Settings, Format[], string][] = [
    ['reward', ['rewarded'], `${capital(aFormat(format))} does not have a reward.`],
    ['size', ['banner'], `Only a banner has a size class, not ${aFormat(format)}.`],
    ['anchor', ['banner'], `Only a banner is anchored, not ${aFormat(format)}.`],
    ['every', ['native'], `Only a native ad can be repeated in a list, not ${aFormat(format)}.`],
    ['first', ['native'], `Only a native ad can be in a list, not ${aFormat(format)}.`],
  ];
  for (const [field, formats, message] of only)
    if (settings[field] !== undefined && !formats.includes(format))
      faults[field] = { message, fix: `Remove it, or make the format ${formats.join(' or ')}.` };
  const stranger = settings.fallback?.find((network) => !known.has(network));
  const double = settings.fallback?.find((network, at) => settings.fallback?.indexOf(network) !== at);
  if (stranger)
    faults.fallback = {
      message: `There is no profile of the network ${stranger}.`,
      fix: `Use ${[...known.keys()].join(', ')}.`,
    };
  else if (double)
    faults.fallback = { message: `${double} is listed twice.`, fix: 'Name each network once.' };
  return faults;
}

function forNetwork(name: string, placement: Placement, profile: Profile): FieldProblem[] {
  const { settings, format, units } = placement;
  const field = `placements.${name}.units.${profile.id}`;
  const rules = profile.formats[format];
  if (!rules)
    return [
      {
        field,
        message: `${profile.name} does not offer the format ${format}.`,
        fix: `It offers ${Object.keys(profile.formats).join(', ')}.`,
      },
    ];
  const nowhere = platforms
    .filter((platform) => valueAt(units, profile.id)?.[platform] && !offers(profile, format, platform))
    .map((platform) => ({
      field: `${field}.${platform}`,
      message: `${profile.name} does not offer ${format} on ${platformLabels[platform]}.`,
      fix: 'Remove the IDs.',
    }));
  const faults = Object.entries(settingFaults(settings, format, rules, profile.name));
  return [
    ...nowhere,
    ...faults.map(([setting, fault]) => ({ field: `placements.${name}.settings.${setting}`, ...fault })),
  ];
}

/** What a setting is held against. */
interface Against {
  settings: Settings;
  format: Format;
  rules: FormatRules;
  /** The network's name. */
  network: string;
}

/** What a network refuses of each setting; undefined where it takes it. */
const refusals: Partial<Record<keyof Settings, (against: Against) => Fault | undefined>> = {
  refresh: refusedRefresh,
  content: ({ settings: { content }, format, rules, network }) => {
    const odd = rules.content && content?.find((kind) => !rules.content?.includes(kind));
    return odd
      ? {
          message: `${network} shows no ${odd} in ${aFormat(format)}.`,
          fix: `It shows ${rules.content?.join(', ')}.`,
        }
      : undefined;
  },
  skippable: (against) => refusedFixed('skippable', against),
  'end-card': (against) => refusedFixed('end-card', against),
  size: ({ settings: { size }, rules: { sizes }, network }) =>
    size && sizes && !sizes.includes(size)
      ? { message: `${network} has no ${size} banner.`, fix: `It has ${sizes.join(', ')}.` }
      : undefined,
  anchor: ({ settings: { anchor }, rules: { anchors }, network }) =>
    anchor && anchors && !anchors.includes(anchor)
      ? { message: `${network} allows no banner at ${anchor}.`, fix: `It allows ${anchors.join(', ')}.` }
      : undefined,
  every: ({ settings, rules: { every }, network }) =>
    settings.every !== undefined && every && settings.every < every.min
      ? {
          message: `${network} requires at least ${every.min} items between two ads.`,
          fix: `Use ${every.min} or more.`,
        }
      : undefined,
  cap: ({ settings: { cap }, rules, network }) =>
    cap?.per &&
    rules.cap &&
    cap.count > rules.cap.max &&
    durationSeconds(cap.per) <= durationSeconds(rules.cap.per)
      ? {
          message: `${network} shows it at most ${rules.cap.max} times per ${rules.cap.per}.`,
          fix: 'Lower the cap.',
        }
      : undefined,
  timeout: ({ settings: { timeout }, rules, network }) =>
    timeout && rules.timeout && !within(timeout, rules.timeout)
      ? {
          message: `${network} does not support a timeout of ${timeout}.`,
          fix: `Use a time from ${rules.timeout.min} to ${rules.timeout.max}.`,
        }
      : undefined,
};

/** What a network refuses of a placement's settings, by setting. */
export function settingFaults(
  settings: Settings,
  format: Format,
  rules: FormatRules,
  network: string,
): Partial<Record<keyof Settings, Fault>> {
  const found = Object.entries(refusals).flatMap(([setting, refusal]) => {
    const fault = refusal({ settings, format, rules, network });
    return fault ? [[setting, fault] as const] : [];
  });
  return Object.fromEntries(found);
}

function refusedRefresh({ settings: { refresh }, format, rules, network }: Against): Fault | undefined {
  if (refresh === undefined) return undefined;
  if (!rules.refresh)
    return refresh === 'off'
      ? undefined
      : { message: `${network} never refreshes ${aFormat(format)}.`, fix: 'Remove it.' };
  const { managed, off, min, max } = rules.refresh;
  const isTaken = refresh === 'managed' ? managed : refresh === 'off' ? off : within(refresh, rules.refresh);
  return isTaken
    ? undefined
    : {
        message: `${network} does not support a refresh time of ${refresh}.`,
        fix: `Use a time from ${min} to ${max}.`,
      };
}

function refusedFixed(
  setting: 'skippable' | 'end-card',
  { settings, format, rules, network }: Against,
): Fault | undefined {
  const [fixed, given] = [rules[setting], settings[setting]];
  if (fixed === undefined || given === undefined || given === fixed) return undefined;
  return {
    message: `${network} has no ${format} with ${setting} ${String(given)}.`,
    fix: `Write ${setting}: ${String(fixed)}, or remove it.`,
  };
}

function within(time: string, bounds: { min: string; max: string }): boolean {
  const value = durationSeconds(time);
  return value >= durationSeconds(bounds.min) && value <= durationSeconds(bounds.max);
}
