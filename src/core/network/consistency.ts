import { platformLabels } from '../words/platform-labels.js';
import { durationSeconds } from '../words/durations.js';
import { readPattern } from '../text/patterns.js';
import { valueAt } from '../text/own-values.js';
import type { LanguageCalls } from './calls.js';
import type { Inventory } from './exchange.js';
import { type Profile } from './model.js';
import { platforms } from '../words/words.js';
import { described } from './described.js';
import { packageFor } from './for-stack.js';
import { samplesOf } from './samples.js';
import { isTagUrl, tagUrlProblems } from './tag-urls.js';

/** A fault between two parts of a profile: each is right on its own. */
export interface Mismatch {
  field: string[];
  message: string;
  fix: string;
}

/** What in a profile does not fit together. */
export function mismatches(profile: Profile): Mismatch[] {
  return [
    ...appIdPlaces(profile),
    ...sharedShapes(profile),
    ...faultyTags(profile),
    ...offeredNowhere(profile),
    ...inventoryFaults(profile),
    ...reportFaults(profile),
    ...codeFaults(profile),
    ...consentFaults(profile),
    ...stackFaults(profile),
    ...bounds(profile),
  ];
}

function appIdPlaces(profile: Profile): Mismatch[] {
  const right = { android: 'manifest', ios: 'plist' } as const;
  return platforms.flatMap((platform) => {
    const place = profile[platform]?.['app-id'];
    if (!place) return [];
    const field = [platform, 'app-id'];
    if (!profile.ids.app)
      return [
        {
          field,
          message: 'There is a place for an app ID here, but ids.app does not describe it.',
          fix: 'Add ids.app.',
        },
      ];
    if (place.place === 'code' || place.place === right[platform]) return [];
    return [
      {
        field,
        message: `On ${platformLabels[platform]} an app ID cannot be in a ${place.place}.`,
        fix: `Use place: ${right[platform]} or code.`,
      },
    ];
  });
}

/** Nobody can answer a question that no code asks. */
function consentFaults({ serving, code }: Profile): Mismatch[] {
  if (!serving?.['consent-first']) return [];
  return Object.entries(code).flatMap(([language, calls]) =>
    calls.consent
      ? []
      : [
          {
            field: ['code', language, 'consent'],
            message:
              'serving.consent-first requires the user’s answer about consent first, but no call asks for it here.',
            fix: 'Add the call that asks for consent, or leave consent-first out.',
          },
        ],
  );
}

/** An ID that matches both kinds could be read as the wrong one. */
function sharedShapes({ ids }: Profile): Mismatch[] {
  const kinds = ['app', 'unit'] as const;
  return kinds.flatMap((kind) => {
    const [mine, other] = [ids[kind], ids[kind === 'app' ? 'unit' : 'app']];
    if (!mine || !other) return [];
    const pattern = readPattern(other.pattern);
    const taken = samplesOf(mine).find(({ id }) => pattern.matches(id));
    if (!taken) return [];
    return [
      {
        field: ['ids', kind, 'samples', ...taken.path],
        message: `${taken.id} is ${mine.label} here, and has the shape of ${other.label} too.`,
        fix: 'Narrow the patterns so that no ID matches both.',
      },
    ];
  });
}

/** Samples that are addresses have to be such as the network takes. */
function faultyTags(profile: Profile): Mismatch[] {
  const { unit } = profile.ids;
  return (unit ? samplesOf(unit) : [])
    .filter(({ id }) => isTagUrl(id))
    .flatMap(({ id, path }) =>
      tagUrlProblems(id, profile)
        .filter(({ severity }) => severity === 'error')
        .map(({ message, fix }) => ({ field: ['ids', 'unit', 'samples', ...path], message, fix })),
    );
}

function offeredNowhere(profile: Profile): Mismatch[] {
  return Object.entries(profile.formats).flatMap(([format, rules]) =>
    (rules.platforms ?? []).flatMap((platform, at) =>
      profile[platform]
        ? []
        : [
            {
              field: ['formats', format, 'platforms', String(at)],
              message: `The format is offered on ${platformLabels[platform]}, but there is no section ${platform}.`,
              fix: `Add a section ${platform}, or remove the platform here.`,
            },
          ],
    ),
  );
}

function inventoryFaults({ inventory, credentials, formats, ids }: Profile): Mismatch[] {
  if (!inventory) return [];
  const faults: Mismatch[] = [];
  if (inventory.http && !valueAt(credentials, inventory.http.key))
    faults.push({
      field: ['inventory', 'http', 'key'],
      message: `There is no credential ${inventory.http.key}.`,
      fix: `Describe it under credentials${listOf(Object.keys(credentials))}.`,
    });
  if (inventory.http?.apps && !ids.app && inventory.http.create && !inventory.http.units.fields.app)
    faults.push({
      field: ['inventory', 'http', 'units', 'fields'],
      message: 'Apps are listed, but no field of a unit refers to its app.',
      fix: 'Add the field app, or leave apps out.',
    });
  faults.push(...doubleWords(inventory));
  for (const format of Object.keys(inventory.words.format))
    if (!(format in formats))
      faults.push({
        field: ['inventory', 'words', 'format', format],
        message: `The network does not offer ${format}.`,
        fix: 'Take it out, or add the format.',
      });
  return faults;
}

function reportFaults({ report, credentials }: Profile): Mismatch[] {
  if (!report) return [];
  const faults: Mismatch[] = [];
  if (report.http && !valueAt(credentials, report.http.key))
    faults.push({
      field: ['report', 'http', 'key'],
      message: `There is no credential ${report.http.key}.`,
      fix: `Describe it under credentials${listOf(Object.keys(credentials))}.`,
    });
  const columns = [report.http?.fields, report.csv?.columns].filter((one) => one !== undefined);
  if (report.currency === undefined && columns.some(({ currency }) => currency === undefined))
    faults.push({
      field: ['report'],
      message: 'There is no currency column, and the report names no currency.',
      fix: 'Add currency, such as EUR: amounts without one cannot be counted.',
    });
  return faults;
}

/** One word that is for two things would be guessed at each time it is read. */
function doubleWords({ words }: Inventory): Mismatch[] {
  return (['platform', 'format', 'status'] as const).flatMap((what) => {
    const seen = new Map<string, string>();
    return Object.entries(words[what]).flatMap(([meaning, names]) =>
      names.flatMap((name): Mismatch[] => {
        const other = seen.get(name.toLowerCase());
        seen.set(name.toLowerCase(), meaning);
        if (other === undefined || other === meaning) return [];
        return [
          {
            field: ['inventory', 'words', what, meaning],
            message: `“${name}” stands for ${other} and for ${meaning}.`,
            fix: 'Keep it for one of them.',
          },
        ];
      }),
    );
  });
}

function codeFaults(profile: Profile): Mismatch[] {
  const handedOver = platforms.filter((platform) => profile[platform]?.['app-id']?.place === 'code');
  return Object.entries<LanguageCalls>(profile.code).flatMap(([language, calls]) => {
    const faults: Mismatch[] = [];
    if (handedOver.length > 0 && calls.start.id === undefined)
      faults.push({
        field: ['code', language, 'start'],
        message: `The app ID is passed in code on ${handedOver.map((one) => platformLabels[one]).join(' and ')}, but no argument of the start-up call takes it.`,
        fix: 'Add id with the position or the label of the argument.',
      });
    if (calls.start.id !== undefined && !calls.start.example.includes('APP_ID'))
      faults.push({
        field: ['code', language, 'start', 'example'],
        message: 'The example does not show where the app ID goes.',
        fix: 'Write APP_ID in its place.',
      });
    for (const name of Object.keys(calls.start.credential ?? {}))
      if (!valueAt(profile.credentials, name))
        faults.push({
          field: ['code', language, 'start', 'credential', name],
          message: `There is no credential ${name}.`,
          fix: `Describe it under credentials${listOf(Object.keys(profile.credentials))}.`,
        });
    for (const [format, { load, example }] of Object.entries(calls.formats)) {
      if (!(format in profile.formats))
        faults.push({
          field: ['code', language, 'formats', format],
          message: `The network does not offer ${format}.`,
          fix: `It offers ${Object.keys(profile.formats).join(', ')}.`,
        });
      const taken = load.id !== undefined || load['taken-by'] !== undefined;
      if (taken && !example.includes('UNIT_ID'))
        faults.push({
          field: ['code', language, 'formats', format, 'example'],
          message: 'The example does not show where the unit ID goes.',
          fix: 'Write UNIT_ID in its place.',
        });
      if (profile.ids.unit && !taken)
        faults.push({
          field: ['code', language, 'formats', format, 'load'],
          message: 'It is not defined which argument takes the unit ID.',
          fix: 'Add id with the position or the label of the argument, or taken-by with the property or call that takes it.',
        });
    }
    return faults;
  });
}

function stackFaults(profile: Profile): Mismatch[] {
  if (profile.ids.app) return [];
  return described.flatMap(({ id, packages }) => {
    const way = packages?.appIdFields;
    const fields = way?.reduce<unknown>(
      (at, name) => (at && typeof at === 'object' ? valueAt(at as Record<string, unknown>, name) : undefined),
      packageFor(profile, id),
    );
    if (!way || !fields || Object.keys(fields).length === 0) return [];
    return [
      {
        field: ['stacks', id, ...way],
        message: 'App IDs are passed here, but ids.app does not describe them.',
        fix: 'Add ids.app, or remove the option.',
      },
    ];
  });
}

function bounds(profile: Profile): Mismatch[] {
  return Object.entries(profile.formats).flatMap(([format, rules]) =>
    (['refresh', 'timeout'] as const).flatMap((name) => {
      const range = rules[name];
      if (!range || durationSeconds(range.min) <= durationSeconds(range.max)) return [];
      return [
        {
          field: ['formats', format, name],
          message: `No time is at least ${range.min} and at most ${range.max}.`,
          fix: 'Swap min and max.',
        },
      ];
    }),
  );
}

function listOf(names: readonly string[]): string {
  return names.length > 0 ? ` (there are ${names.join(', ')})` : '';
}
