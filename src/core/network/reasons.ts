import { stackNamed } from './described.js';
import type { Profile } from './model.js';

/** Something that a profile requires, in words, with its reason. */
export interface Reason {
  /** The section that it is in, such as `Android permissions`. */
  what: string;
  value: string;
  why: string;
}

const sections = { android: 'Android', ios: 'iOS', stacks: '' } as const;

/** Every requirement of a profile that carries a reason, in the order of the model. */
export function reasonsOf(profile: Profile): Reason[] {
  return (Object.entries(sections) as [keyof typeof sections, string][]).flatMap(([section, name]) =>
    Object.entries(profile[section] ?? {}).flatMap(([field, value]) => {
      const what = name === '' ? (stackNamed(field)?.name ?? field) : `${name} ${inWords(field)}`;
      return (Array.isArray(value) ? (value as unknown[]) : [value]).flatMap((item) => reason(what, item));
    }),
  );
}

/** A field's name as people write it: `app-id` is the app ID, `min-sdk` the min SDK. */
function inWords(field: string): string {
  return field
    .replace(/-/g, ' ')
    .replace(/\bid\b/, 'ID')
    .replace(/\bsdk\b/, 'SDK')
    .replace('kotlin', 'Kotlin');
}

function reason(what: string, item: unknown): Reason[] {
  if (!item || typeof item !== 'object') return [];
  if ('none' in item && typeof item.none === 'string') return [{ what, value: 'none', why: item.none }];
  if (!('why' in item) || typeof item.why !== 'string') return [];
  const { why, ...rest } = item as Record<string, unknown> & { why: string };
  return [{ what, value: shown(rest), why }];
}

/** The values of a requirement, the plain ones as they are, the others with their names. */
function shown(fields: Record<string, unknown>): string {
  return Object.entries(fields)
    .flatMap(([name, value]): string[] => {
      if (Array.isArray(value)) return value.length > 0 ? [value.map((item) => plain(item)).join(', ')] : [];
      if (value && typeof value === 'object') {
        const inner = shown(value as Record<string, unknown>);
        return inner === '' ? [] : [`${name} (${inner})`];
      }
      if (name === 'min') return [`from ${plain(value)}`];
      if (name === 'below') return [`below ${plain(value)}`];
      return [plain(value)];
    })
    .join(' ');
}

function plain(value: unknown): string {
  return typeof value === 'string' ? value : JSON.stringify(value);
}
