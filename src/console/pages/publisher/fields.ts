import { entryAt, putAt } from '../../../core/text/own-values.js';
import type { Publisher } from '../../../core/roster/model.js';

/** Fields of the publisher by their paths, such as `accounts.cobalt-heron`. */
export type PublisherFields = Record<string, string>;

export function fieldsOf(publisher: Publisher | null): PublisherFields {
  if (!publisher) return {};
  const { name, domain, accounts = {}, credentials = {} } = publisher;
  return Object.fromEntries([
    ['name', name],
    ['domain', domain],
    ...Object.entries(accounts).map(([network, account]) => [`accounts.${network}`, account]),
    ...Object.entries(credentials).flatMap(([network, own]) =>
      Object.entries(own).map(([key, reference]) => [`credentials.${network}.${key}`, reference]),
    ),
  ]) as PublisherFields;
}

/** The publisher with the typed values; an emptied field is removed. */
export function changedPublisher(before: Publisher | null, typed: PublisherFields): Publisher {
  const accounts: Record<string, string> = {};
  const credentials: Record<string, Record<string, string>> = {};
  const values = new Map(Object.entries({ ...fieldsOf(before), ...typed }));
  for (const [path, value] of values) {
    const [part, network = '', key = ''] = path.split('.');
    const text = value.trim();
    if (text === '') continue;
    if (part === 'accounts') putAt(accounts, network, text);
    if (part === 'credentials')
      putAt(
        entryAt(credentials, network, () => ({})),
        key,
        text,
      );
  }
  return {
    name: (values.get('name') ?? '').trim(),
    domain: (values.get('domain') ?? '').trim(),
    ...(Object.keys(accounts).length > 0 ? { accounts } : {}),
    ...(Object.keys(credentials).length > 0 ? { credentials: credentials } : {}),
  };
}
