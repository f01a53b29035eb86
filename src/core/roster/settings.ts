import { valueAt } from '../text/own-values.js';
import type { FieldProblem } from '../formats/yaml/read.js';
import { durationSeconds } from '../network/consistency.js';
import { type Profile } from '../network/model.js';
import { platforms, type Format } from '../words/words.js';
import { offers } from '../network/recognise.js';
import type { Placement, Settings } from './model.js';

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

/** Faults that no network has to be asked for, by setting. */
function alone(
  settings: Settings,
  format: Format,
  known: ReadonlyMap<string, Profile>,
): Record<string, Fault> {
  const faults: Record<string, Fault> = {};
  if (settings.content?.length === 0)
    faults.content = {
      message: 'No content kind is left, so nothing can be shown.',
      fix: 'Name at least one of text, image, video.',
    };
  const only: [keyof Settings, Format[], string][] = [
    ['reward', ['rewarded'], `A ${format} gives no reward.`],
    ['size', ['banner'], `Only a banner has a size class, not a ${format}.`],
    ['anchor', ['banner'], `Only a banner is anchored, not a ${format}.`],
    ['every', ['native'], `Only a native ad comes every so many items, not a ${format}.`],
    ['first', ['native'], `Only a native ad stands in a list, not a ${format}.`],
  ];
  for (const [field, formats, message] of only)
    if (settings[field] !== undefined && !formats.includes(format))
      faults[field] = { message, fix: `Take it out, or make the format ${formats.join(' or ')}.` };
  const stranger = settings.fallback?.find((network) => !known.has(network));
  const double = settings.fallback?.find((network, at) => settings.fallback?.indexOf(network) !== at);
  if (stranger)
    faults.fallback = {
      message: `There is no profile of the network ${stranger}.`,
      fix: `Use ${[...known.keys()].join(', ')}.`,
    };
  else if (double)
    faults.fallback = { message: `${double} stands in it twice.`, fix: 'Name each network once.' };
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
      message: `${profile.name} does not offer ${format} on ${platform}.`,
      fix: 'Take the IDs out.',
    }));
  const faults = Object.entries(againstRules(settings, format, rules, profile.name));
  return [
    ...nowhere,
    ...faults.map(([setting, fault]) => ({ field: `placements.${name}.settings.${setting}`, ...fault })),
  ];
}

/** What a network refuses of a placement's settings, by setting. */
export function againstRules(
  settings: Settings,
  format: Format,
  rules: FormatRules,
  network: string,
): Partial<Record<keyof Settings, Fault>> {
  const faults: Partial<Record<keyof Settings, Fault>> = {};
  const { refresh, content, cap, timeout } = settings;
  if (refresh !== undefined && rules.refresh) {
    const takes =
      refresh === 'managed'
        ? rules.refresh.managed
        : refresh === 'off'
          ? rules.refresh.off
          : within(refresh, rules.refresh);
    if (!takes)
      faults.refresh = {
        message: `${network} does not take the refresh ${refresh}.`,
        fix: `Use a time from ${rules.refresh.min} to ${rules.refresh.max}.`,
      };
  } else if (refresh !== undefined && refresh !== 'off')
    faults.refresh = { message: `${network} never refreshes a ${format}.`, fix: 'Take it out.' };
  const odd = rules.content && content?.find((kind) => !rules.content?.includes(kind));
  if (odd)
    faults.content = {
      message: `${network} shows no ${odd} in a ${format}.`,
      fix: `It shows ${rules.content?.join(', ')}.`,
    };
  for (const [field, fixed] of [
    ['skippable', rules.skippable],
    ['end-card', rules['end-card']],
  ] as const)
    if (fixed !== undefined && settings[field] !== undefined && settings[field] !== fixed)
      faults[field] = {
        message: `${network} has no ${format} with ${field} ${String(settings[field])}.`,
        fix: `Write ${field}: ${String(fixed)}, or take it out.`,
      };
  if (settings.size && rules.sizes && !rules.sizes.includes(settings.size))
    faults.size = {
      message: `${network} has no ${settings.size} banner.`,
      fix: `It has ${rules.sizes.join(', ')}.`,
    };
  if (settings.anchor && rules.anchors && !rules.anchors.includes(settings.anchor))
    faults.anchor = {
      message: `${network} allows no banner at ${settings.anchor}.`,
      fix: `It allows ${rules.anchors.join(', ')}.`,
    };
  if (settings.every !== undefined && rules.every && settings.every < rules.every.min)
    faults.every = {
      message: `${network} wants at least ${rules.every.min} items between two ads.`,
      fix: `Use ${rules.every.min} or more.`,
    };
  if (
    cap?.per &&
    rules.cap &&
    cap.count > rules.cap.max &&
    durationSeconds(cap.per) <= durationSeconds(rules.cap.per)
  )
    faults.cap = {
      message: `${network} shows it at most ${rules.cap.max} times per ${rules.cap.per}.`,
      fix: 'Lower the cap.',
    };
  if (timeout && rules.timeout && !within(timeout, rules.timeout))
    faults.timeout = {
      message: `${network} does not wait ${timeout}.`,
      fix: `Use a time from ${rules.timeout.min} to ${rules.timeout.max}.`,
    };
  return faults;
}

function within(time: string, bounds: { min: string; max: string }): boolean {
  const value = durationSeconds(time);
  return value >= durationSeconds(bounds.min) && value <= durationSeconds(bounds.max);
}
