import { valueAt } from '../text/own-values.js';
import type { Settings } from '../words/settings.js';
import { settingFaults } from '../roster/settings.js';
import type { CheckContext, Report } from './model.js';

/** Reports for one setting of every placement that a network refuses. */
export function* refusedSettings(
  { title, profiles }: CheckContext,
  setting: keyof Settings,
): Iterable<Report<'refused'>> {
  for (const [placement, { settings, format, units }] of Object.entries(title?.placements ?? {})) {
    for (const profile of profiles) {
      const rules = profile.formats[format];
      if (!valueAt(units, profile.id) || !rules) continue;
      const fault = settingFaults(settings, format, rules, profile.name)[setting];
      if (!fault) continue;
      const value = JSON.stringify(settings[setting]);
      const data = { placement, value, why: fault.message, fix: fault.fix };
      yield { placement, network: profile.id, message: 'refused', data };
    }
  }
}

/** Whether an ID is one that a network publishes for testing. */
export function isSample({ recogniser }: CheckContext, id: string): boolean {
  return recogniser.recognise(id).some(({ sample }) => (sample ?? []).length > 0);
}

/**
 * Whether two IDs look like one that was mistyped: one character differs, or two neighbours are swapped. IDs
 * that differ in a digit only are numbered one after the other, as networks do.
 */
export function oneEditApart(a: string, b: string): boolean {
  if (a === b || a.length !== b.length) return false;
  const places = [...Array(a.length).keys()].filter((index) => a[index] !== b[index]);
  const [first = 0, second] = places;
  const numbered = /\d/.test(a[first] ?? '') && /\d/.test(b[first] ?? '');
  if (places.length === 1) return !numbered;
  return places.length === 2 && second === first + 1 && a[first] === b[second] && a[second] === b[first];
}
