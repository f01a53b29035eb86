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
