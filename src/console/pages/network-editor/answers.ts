import type * as z from 'zod';
import type { ProfileAnswers } from '../../../core/drafting/profile.js';
import { formatNames, platformNames } from '../../../core/words/names.js';
import { words } from '../../components/fields.js';

/** What the form asks, as it is typed. */
export type AnswerFields = Record<string, string>;

/** A question of the form: the name of its field, what it is called, and an example of an answer. */
export interface Question {
  field: string;
  label: string;
  hint: string;
}

/** What is asked, in the order of an integration page. */
export const parts: readonly { name: string; about: string; questions: readonly Question[] }[] = [
  {
    name: 'Who is it?',
    about: 'The short name is used in the record and in commands; people see the name.',
    questions: [
      { field: 'id', label: 'Short name', hint: 'pebblegate' },
      { field: 'name', label: 'Name', hint: 'Pebblegate' },
      {
        field: 'about',
        label: 'What it is, in a line',
        hint: 'Display network; app IDs are declared in the build',
      },
    ],
  },
  {
    name: 'What do its IDs look like?',
    about:
      'One ID of your own for each platform shows the shape. Samples are what the network gives out to everybody for testing: they must never ship.',
    questions: [
      { field: 'app.android', label: 'App ID, Android', hint: 'empty if it has none' },
      { field: 'app.ios', label: 'App ID, iOS', hint: 'empty if it has none' },
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
    about: 'The names under which the manifest and the property list hold it.',
    questions: [
      { field: 'manifest-key', label: 'Key in the manifest', hint: 'example.pebblegate.APP_ID' },
      { field: 'plist-key', label: 'Key in the property list', hint: 'PebblegateAppID' },
    ],
  },
  {
    name: 'What does the build need?',
    about: 'Several, with commas between.',
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
