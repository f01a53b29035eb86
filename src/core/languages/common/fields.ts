import { durationSeconds } from '../../words/durations.js';
import type { Settings } from '../../words/settings.js';

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
    about: 'Seconds until the next ad; 0 for never, none where the network decides.',
    value: ({ refresh }) => (refresh === 'off' ? 0 : refresh === 'managed' ? undefined : seconds(refresh)),
  },
  { name: 'capCount', type: 'int', about: 'At most so many showings.', value: ({ cap }) => cap?.count },
  {
    name: 'capSeconds',
    type: 'int',
    about: 'The time (seconds) that the cap is for.',
    value: ({ cap }) => seconds(cap?.per),
  },
  {
    name: 'rewardAmount',
    type: 'int',
    about: 'What is earned: how many.',
    value: ({ reward }) => reward?.amount,
  },
  {
    name: 'rewardItem',
    type: 'text',
    about: 'What is earned: of what.',
    value: ({ reward }) => reward?.item,
  },
  { name: 'anchor', type: 'text', about: 'Where a banner is held.', value: ({ anchor }) => anchor },
  { name: 'size', type: 'text', about: 'The size class of a banner.', value: ({ size }) => size },
  { name: 'every', type: 'int', about: 'In a list: after every so many items.', value: ({ every }) => every },
  {
    name: 'first',
    type: 'int',
    about: 'In a list: the first after so many items.',
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
    about: 'Whether it may be skipped.',
    value: ({ skippable }) => skippable,
  },
  { name: 'endCard', type: 'bool', about: 'Whether it ends with a card.', value: (all) => all['end-card'] },
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
