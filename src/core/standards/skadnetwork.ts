// SKAdNetwork identifiers as Apple's documentation of `SKAdNetworkItems` has them: an array of dictionaries with
// the key SKAdNetworkIdentifier, its value in small letters and ending in `.skadnetwork`. Networks publish
// their lists as such a property list, or as JSON with the fields `skadnetwork_ids` and `skadnetwork_id`.

export const itemsKey = 'SKAdNetworkItems';
export const identifierKey = 'SKAdNetworkIdentifier';

/** The right form of an identifier: small letters, no blanks, its ending; null for what is none. */
export function normalId(written: string): string | null {
  const text = written.trim().toLowerCase();
  const id = text.endsWith('.skadnetwork') ? text : `${text}.skadnetwork`;
  return /^[a-z0-9]{5,40}\.skadnetwork$/.test(id) ? id : null;
}

/** Identifiers of several lists as one: in their right form, sorted, each once. */
export function mergedIds(lists: readonly (readonly string[])[]): string[] {
  return [...new Set(lists.flat().flatMap((id) => normalId(id) ?? []))].sort();
}

/** A list in the form of the property list, for pasting or for a separate file. */
export function attributionPlist(ids: readonly string[]): string {
  const items = ids.flatMap((id) => [
    '\t\t<dict>',
    `\t\t\t<key>${identifierKey}</key>`,
    `\t\t\t<string>${id}</string>`,
    '\t\t</dict>',
  ]);
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    '<!DOCTYPE plist PUBLIC "-//Apple//DTD PLIST 1.0//EN" "http://www.apple.com/DTDs/PropertyList-1.0.dtd">',
    '<plist version="1.0">',
    '<dict>',
    `\t<key>${itemsKey}</key>`,
    '\t<array>',
    ...items,
    '\t</array>',
    '</dict>',
    '</plist>',
    '',
  ].join('\n');
}

/** A list as JSON, with the field names that published lists use. */
export function attributionJson(ids: readonly string[]): string {
  return `${JSON.stringify({ skadnetwork_ids: ids.map((id) => ({ skadnetwork_id: id })) }, null, 2)}\n`;
}
