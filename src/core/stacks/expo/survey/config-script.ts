import type { Platform, Stage } from '../../../words/words.js';
import { isSameGeneratedText } from '../../../languages/common/placebook.js';
import { scriptMark } from '../../common/script-packages/expo-project.js';

/** The variable by which builds say their stage; its beginning is what puts it into bundles, too. */
export const stageVariable = 'EXPO_PUBLIC_ADS_STAGE';

/** What holds in every build that was not told to be of the production stage. */
export const isTestByVariable = `process.env.${stageVariable} !== 'production'`;

/** A plugin entry with the app IDs of each platform and stage, under the names that the plugin takes them by. */
export interface PluginIds {
  package: string;
  fields: { name: string; platform: Platform; ids: Partial<Record<Stage, string>> }[];
}

/** The app config that picks app IDs by stage, and leaves everything else to `app.json`. */
export function appConfigScript(entries: readonly PluginIds[], revision: number | undefined): string {
  const from = revision === undefined ? '' : ` from revision ${revision} of the roster`;
  return [
    `// ${scriptMark}${from}; app.json says everything else.`,
    '// Do not edit: change the roster and run "syndexa wire" again.',
    '',
    `const test = ${isTestByVariable};`,
    '',
    'module.exports = ({ config }) => ({',
    '  ...config,',
    '  plugins: [',
    '    ...(config.plugins ?? []),',
    ...entries.flatMap(({ package: name, fields }) => [
      '    [',
      `      '${name}',`,
      '      {',
      ...fields.map(({ name: field, ids: { test, production } }) =>
        test === production || test === undefined || production === undefined
          ? `        ${field}: '${test ?? production ?? ''}',`
          : line(field, test, production),
      ),
      '      },',
      '    ],',
    ]),
    '  ],',
    '});',
    '',
  ].join('\n');
}

function line(field: string, test: string, production: string): string {
  const whole = `        ${field}: test ? '${test}' : '${production}',`;
  if (whole.length <= 80) return whole;
  return `        ${field}: test\n          ? '${test}'\n          : '${production}',`;
}

/** Whether two of these scripts are equal, apart from the revision that they were written from. */
export function sameScript(a: string, b: string): boolean {
  const plain = (text: string) => text.replace(/ from revision \d+ of the roster;/g, ';');
  return isSameGeneratedText(plain(a), plain(b));
}
