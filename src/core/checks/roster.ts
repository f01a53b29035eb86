import { againstRules } from '../roster/settings.js';
import type { CheckContext } from './model.js';

/** What each network refuses of each placement's settings. */
export function settingFaults({ title, profiles }: CheckContext) {
  return Object.entries(title?.placements ?? {}).flatMap(([placement, { settings, format, units }]) =>
    profiles.flatMap((profile) => {
      const rules = profile.formats[format];
      if (!units[profile.id] || !rules) return [];
      return [
        { placement, network: profile.id, faults: againstRules(settings, format, rules, profile.name) },
      ];
    }),
  );
}

/** Whether an ID is one of those that a network gives out for testing. */
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
