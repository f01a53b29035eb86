import type * as z from 'zod';
import type { ProfileAnswers } from '../../../core/drafting/profile.js';
import { formatNames, platformNames } from '../../../core/words/names.js';
import { words } from '../../components/fields.js';

/** What the form asks, as it is typed. */
export type AnswerFields = Record<string, string>;

/** A question of the form: the name of its field, its label, and an example of an answer. */
export interface Question {
  field: string;
  label: string;
  hint: string;
}

/** What is asked, in the order of an integration page. */
export const parts: readonly { name: string; about: string; questions: readonly Question[] }[] = [
  {
    name: 'Who is it?',
    about: 'The short name is used in the record and in commands; the name is for people.',
    questions: [
      { field: 'id', label: 'Short name', hint: 'pebblegate' },
      { field: 'name', label: 'Name', hint: 'Pebblegate' },
      {
        field: 'about',
        label: 'What it is, in one line',
        hint: 'Display network; app IDs are declared in the build',
      },
    ],
  },
  {
    name: 'What do its IDs look like?',
    about:
      'One of your IDs for each platform shows the shape. Samples are IDs that the network publishes for testing: they must never ship.',
    questions: [
      { field: 'app.android', label: 'App ID, Android', hint: 'empty for none' },
      { field: 'app.ios', label: 'App ID, iOS', hint: 'empty for none' },
      { field: 'unit.android', label: 'Unit ID, Android', hint: 'pbg-u-4411-banner01' },
      { field: 'unit.ios', label: 'Unit ID, iOS', hint: 'pbg-u-4411-banner02' },
      { field: 'app-samples.android', label: 'Sample app ID, Android', hint: '' },
      { field: 'app-samples.ios', label: 'Sample app ID, iOS', hint: '' },
      { field: 'unit-samples.android', label: 'Sample unit ID, Android', hint: '' },
      { field: 'unit-samples.ios', label: 'Sample unit ID, iOS', hint: '' },
    ],
  },
  {
    name: 'Where does the app ID go?',
    about: 'Its keys in the manifest and the property list.',
    questions: [
      { field: 'manifest-key', label: 'Manifest key', hint: 'example.pebblegate.APP_ID' },
      { field: 'plist-key', label: 'Property-list key', hint: 'PebblegateAppID' },
    ],
  },
  {
    name: 'What does the build need?',
    about: 'Separate several with commas.',
    questions: [
      { field: 'dependencies', label: 'Gradle dependencies', hint: 'example.pebblegate:ads:4.2.0' },
      { field: 'repositories', label: 'Maven repositories', hint: 'https://maven.pebblegate.example' },
      { field: 'pods', label: 'Pods', hint: 'PebblegateAds:4.2.0' },
      { field: 'permissions', label: 'Permissions', hint: 'android.permission.INTERNET' },
    ],
  },
];

const kinds = ['app', 'unit', 'app-samples', 'unit-samples'] as const;
const lists = ['dependencies', 'repositories', 'pods', 'permissions'] as const;

/** The answers that were typed, as the drafting takes them. */
export function answersOf(
  fields: AnswerFields,
  formats: readonly string[],
  platforms: readonly string[],
): z.input<typeof ProfileAnswers> {
  const at = (field: string) => (new Map(Object.entries(fields)).get(field) ?? '').trim();
  const ids = (kind: (typeof kinds)[number]) =>
    Object.fromEntries(
      platformNames.flatMap((platform) => {
        const id = at(`${kind}.${platform}`);
        return id === '' ? [] : [[platform, id]];
      }),
    );
  const optional = (field: 'about' | 'manifest-key' | 'plist-key') =>
    at(field) === '' ? {} : { [field]: at(field) };
  return {
    id: at('id'),
    name: at('name'),
    ...optional('about'),
    ...optional('manifest-key'),
    ...optional('plist-key'),
    platforms: platformNames.filter((platform) => platforms.includes(platform)),
    formats: formatNames.filter((format) => formats.includes(format)),
    ...Object.fromEntries(kinds.map((kind) => [kind, ids(kind)])),
    ...Object.fromEntries(lists.map((list) => [list, words(at(list))])),
  };
}
