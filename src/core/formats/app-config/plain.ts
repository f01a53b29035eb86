import type { PlainValue } from '../plist/plain.js';
import type { ConfigValue } from './resolve.js';

/** A value of the configuration in the form of JSON; undefined if part of it is unknown. */
export function plainConfig(value: ConfigValue): PlainValue | undefined {
  if (value.is === 'text') return value.value;
  if (value.is === 'plain') return value.value ?? '';
  if (value.is === 'open') return undefined;
  if (value.is === 'list') {
    const items = value.items.map(plainConfig);
    return items.every((item) => item !== undefined) ? items : undefined;
  }
  if (value.rest) return undefined;
  const entries = [...value.entries].map(([key, one]) => [key, plainConfig(one)] as const);
  return entries.every(([, one]) => one !== undefined)
    ? (Object.fromEntries(entries) as Record<string, PlainValue>)
    : undefined;
}
