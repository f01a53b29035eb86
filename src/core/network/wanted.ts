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
 * The value that a component's attribute must be given to meet a need: the one that is there with the flags that it
 * lacks, or the wanted one. Undefined where it meets the need, and where only the build fills it in.
 */
export function mendedAttribute(name: string, found: string, wanted: string): string | undefined {
  if (found.includes('$')) return undefined;
  const flags = found.trim().split('|');
  const lacking = wanted.split('|').filter((flag) => !flags.includes(flag));
  if (lacking.length === 0) return undefined;
  return flagAttributes.has(name) && found.trim() !== '' ? [...flags, ...lacking].join('|') : wanted;
}
