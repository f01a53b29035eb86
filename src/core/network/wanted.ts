import type { AndroidNeeds } from './needs.js';

/** The library behind core library desugaring. Source: Android developer guide, "Use Java 8+ language features". */
export const desugarLibrary = 'com.android.tools:desugar_jdk_libs';

/** The value that a meta-data element must have, as its attribute writes it; undefined where any value will do. */
export function wantedMetaData({
  value,
  resource,
}: Pick<AndroidNeeds['meta-data'][number], 'value' | 'resource'>):
  { as: 'value' | 'resource'; text: string } | undefined {
  if (resource !== undefined) return { as: 'resource', text: resource };
  return value === undefined ? undefined : { as: 'value', text: String(value) };
}

/** Attributes of components that hold a list of flags. Source: Android reference, `R.attr`. */
const flagAttributes = new Set(['configChanges', 'foregroundServiceType', 'windowSoftInputMode']);

/**
 * The new value of a component's attribute to meet a need: the current one with the missing flags, or the required one.
 * Undefined if it already meets the need, or only the build sets it.
 */
export function mendedAttribute(name: string, found: string, wanted: string): string | undefined {
  if (found.includes('$')) return undefined;
  const flags = found.trim().split('|');
  const lacking = wanted.split('|').filter((flag) => !flags.includes(flag));
  if (lacking.length === 0) return undefined;
  return flagAttributes.has(name) && found.trim() !== '' ? [...flags, ...lacking].join('|') : wanted;
}
