import { durationSeconds } from '../../words/durations.js';
import { valueAt } from '../../text/own-values.js';
import { Settings } from '../../words/settings.js';

/** The types that settings have in a placebook. */
export type FieldType = 'int' | 'bool' | 'text' | 'texts' | 'networks';

/** A setting of a placement as a placebook carries it. */
export interface PlacebookField {
  name: string;
  type: FieldType;
  about: string;
  value: (settings: Settings) => number | boolean | string | readonly string[] | undefined;
}

const seconds = (duration: string | undefined) =>
  duration === undefined ? undefined : durationSeconds(duration);

/** Every setting, in the order in which placebooks have them. */
export const placebookFields: readonly PlacebookField[] = [
  {
    name: 'refreshSeconds',
    type: 'int',
    about: 'Seconds between refreshes; 0 for never, none if the network decides.',
    value: ({ refresh }) => (refresh === 'off' ? 0 : refresh === 'managed' ? undefined : seconds(refresh)),
  },
  {
    name: 'capCount',
    type: 'int',
    about: 'The frequency cap: how often it may be shown.',
    value: ({ cap }) => cap?.count,
  },
  {
    name: 'capSeconds',
    type: 'int',
    about: 'The period of the frequency cap, in seconds.',
    value: ({ cap }) => seconds(cap?.per),
  },
  {
    name: 'rewardAmount',
    type: 'int',
    about: 'The amount of the reward.',
    value: ({ reward }) => reward?.amount,
  },
  {
    name: 'rewardItem',
    type: 'text',
    about: 'The item that the reward consists of.',
    value: ({ reward }) => reward?.item,
  },
  { name: 'anchor', type: 'text', about: 'Where a banner is anchored.', value: ({ anchor }) => anchor },
  { name: 'size', type: 'text', about: 'The size class of a banner.', value: ({ size }) => size },
  {
    name: 'every',
    type: 'int',
    about: 'In a list: the number of items between two ads.',
    value: ({ every }) => every,
  },
  {
    name: 'first',
    type: 'int',
    about: 'In a list: the number of items before the first ad.',
    value: ({ first }) => first,
  },
  {
    name: 'timeoutSeconds',
    type: 'int',
    about: 'Seconds to wait for an ad.',
    value: ({ timeout }) => seconds(timeout),
  },
  {
    name: 'skippable',
    type: 'bool',
    about: 'Whether the user may skip an ad.',
    value: ({ skippable }) => skippable,
  },
  {
    name: 'endCard',
    type: 'bool',
    about: 'Whether an end card follows a video.',
    value: (all) => all['end-card'],
  },
  { name: 'content', type: 'texts', about: 'The kinds of content.', value: ({ content }) => content },
  {
    name: 'fallback',
    type: 'networks',
    about: 'The networks to try, in order.',
    value: ({ fallback }) => fallback,
  },
];

/** The settings that are given, each with its value as code writes it. */
export function givenFields(
  settings: Settings,
  write: (value: NonNullable<ReturnType<PlacebookField['value']>>, type: FieldType) => string,
): { name: string; text: string }[] {
  return placebookFields.flatMap(({ name, type, value }) => {
    const given = value(settings);
    return given === undefined ? [] : [{ name, text: write(given, type) }];
  });
}

/** Settings from the fields of a placebook, as `placebookFields` writes them; what fits no setting is left out. */
export function settingsFrom(fields: Readonly<Record<string, string>>): Settings {
  const text = (name: string) => valueAt(fields, name);
  const number = (name: string) => {
    const value = text(name);
    return value === undefined || !/^\d+$/.test(value) ? undefined : Number(value);
  };
  const flag = (name: string) => {
    const value = text(name);
    return value === 'true' || value === 'false' ? value === 'true' : undefined;
  };
  const time = (name: string) => {
    const value = number(name);
    return value === undefined || value === 0 ? undefined : durationText(value);
  };
  const [count, amount, item] = [number('capCount'), number('rewardAmount'), text('rewardItem')];
  const given = {
    refresh: number('refreshSeconds') === 0 ? 'off' : time('refreshSeconds'),
    cap: count === undefined ? undefined : { count, per: time('capSeconds') },
    reward: amount === undefined || item === undefined ? undefined : { amount, item },
    anchor: text('anchor'),
    size: text('size'),
    every: number('every'),
    first: number('first'),
    timeout: time('timeoutSeconds'),
    skippable: flag('skippable'),
    'end-card': flag('endCard'),
    content: text('content')?.split(' and '),
  };
  const kept = Object.entries(given).filter(([, value]) => value !== undefined);
  return Settings.safeParse(Object.fromEntries(kept)).data ?? {};
}

/** A time as people write it: `90s`, `10m`, `2h`. */
function durationText(amount: number): string {
  if (amount % 3600 === 0) return `${amount / 3600}h`;
  return amount % 60 === 0 && amount > 60 ? `${amount / 60}m` : `${amount}s`;
}
