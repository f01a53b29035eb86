import { plistText, topEntries, type PlistValue } from '../../../formats/plist/read.js';
import type { ChainStep, Place } from '../../../facts/evidence.js';
import { placeAt } from '../../../facts/place.js';
import type { Tree } from '../../../tree/tree.js';
import { settingNames, settingOf } from './settings.js';
import { plistOf, type IosVariant } from './targets.js';

/** A key that the property list of a build would hold, or that someone believes it would. */
export interface PropertyKey {
  key: string;
  type: PlistValue['type'];
  text: string;
  place: Place;
  chain: ChainStep[];
  /** The value as it is in a file; undefined when the build makes it. */
  value?: PlistValue;
  /** A build setting that is named like a generated key, and that Xcode skips. */
  ignored: boolean;
}

const prefix = 'INFOPLIST_KEY_';

/** Keys of the system's own: only these are generated. Source: Apple, "Build settings reference", INFOPLIST_KEY_…. */
const systemKey = /^(NS|UI|CF|LS|ITS|WK|GC|MK|SK)[A-Z]/;

/** The keys of a variant's property list: those of the file, then those that the build generates beside them. */
export function propertyKeys(tree: Tree, variant: IosVariant): PropertyKey[] {
  const list = plistOf(tree, variant);
  const written = (list ? topEntries(list.document) : []).map((entry): PropertyKey => {
    const place = placeAt(list?.path ?? '', list?.text, entry);
    const text = plistText(entry.value);
    const chain = [{ what: 'property list', value: text, place }];
    const { key, value } = entry;
    return { key, type: value.type, text, place, chain, value, ignored: false };
  });
  const inFile = new Set(written.map(({ key }) => key));
  const generates = /^yes$/i.test(settingOf(variant.scope, 'GENERATE_INFOPLIST_FILE')?.value ?? '');
  const generated = settingNames(variant.scope, prefix).flatMap((name): PropertyKey[] => {
    const key = name.slice(prefix.length);
    const setting = settingOf(variant.scope, name);
    const place = setting?.chain[0]?.place;
    if (inFile.has(key) || setting?.value == null || !place) return [];
    const ignored = !generates || !systemKey.test(key);
    const isFlag = /^(yes|no)$/i.test(setting.value);
    const type = isFlag ? 'boolean' : 'string';
    const text = isFlag ? String(/^yes$/i.test(setting.value)) : setting.value;
    return [{ key, type, text, place, chain: setting.chain, ignored }];
  });
  return [...written, ...generated];
}
