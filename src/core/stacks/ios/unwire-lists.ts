import { removeEntry } from '../../formats/plist/edit.js';
import { removeElement } from '../../formats/xml/edit.js';
import { entryOf, stringOf } from '../../formats/pbxproj/read.js';
import { identifierKey, itemsKey, normalId } from '../../standards/skadnetwork.js';
import type { Edit } from '../../text/edit.js';
import type { PlistValue } from '../../formats/plist/read.js';
import type { Change } from '../../wiring/model.js';
import { entryLines } from './unwire-objects.js';
import type { IosUnwireContext } from './unwire.js';
import { othersNeed } from './unwire.js';
import { madeList, targetLists, type TargetList } from './wire-lists.js';

/** Keys and attribution identifiers of the network, out of every property list of the target. */
export function unwireLists(context: IosUnwireContext): Change[] {
  return (targetLists(context) ?? []).flatMap((list) => unwireList(context, list));
}

function unwireList(context: IosUnwireContext, list: TargetList): Change[] {
  const { network, added } = context;
  if (!list.text) return [];
  const { text } = list.text;
  const place = network.ios?.['app-id'];
  const keys = new Set<string>();
  if (
    place?.place === 'plist' &&
    !othersNeed(context, ({ ios }) => ios?.['app-id']?.place === 'plist' && ios['app-id'].key === place.key)
  )
    keys.add(place.key);
  for (const { key } of network.ios?.keys ?? [])
    if (
      added.has(`key ${key}`) &&
      !othersNeed(context, ({ ios }) => ios?.keys.some((other) => other.key === key) ?? false)
    )
      keys.add(key);
  const edits: { topic: Change['topic']; edits: Edit[]; adds?: string[] }[] = [];
  const gone = list.root.entries.filter(({ key }) => keys.has(key));
  for (const entry of gone)
    edits.push({
      topic: place?.place === 'plist' && entry.key === place.key ? 'app-id' : 'keys',
      edits: [removeEntry(text, entry)],
      adds: [`key ${entry.key}`],
    });
  const attribution = list.root.entries.find(({ key }) => key === itemsKey);
  const items = attribution?.value.type === 'array' ? attribution.value.items : [];
  const mine = items.filter((item) => isMine(context, item));
  const whole = attribution !== undefined && mine.length > 0 && mine.length === items.length;
  if (whole) edits.push({ topic: 'attribution', edits: [removeEntry(text, attribution)] });
  else if (mine.length > 0)
    edits.push({ topic: 'attribution', edits: mine.map(({ element }) => removeElement(text, element)) });
  const base = { path: list.path, platform: 'ios' as const, network: network.id, rules: [] };
  const empty = list.root.entries.length === gone.length + (whole ? 1 : 0);
  if (empty && list.path === madeList(context) && edits.length > 0)
    return [{ ...base, topic: 'app-id', remove: true }, ...withoutSetting(context, list)];
  return edits.map((edit) => ({ ...base, ...edit }));
}

function isMine(context: IosUnwireContext, item: PlistValue): boolean {
  if (item.type !== 'dict') return false;
  const value = item.entries.find(({ key }) => key === identifierKey)?.value;
  const id = value?.type === 'string' ? normalId(value.value) : null;
  if (id === null || !context.network.ios?.attribution?.ids.includes(id)) return false;
  return !othersNeed(context, ({ ios }) => ios?.attribution?.ids.includes(id) ?? false);
}

/** The setting that names the list which wiring made. */
function withoutSetting({ tree, model, network }: IosUnwireContext, list: TargetList): Change[] {
  const { path, folder } = model.project;
  const text = tree.text(path)?.text;
  const value = folder === '' ? list.path : list.path.slice(folder.length + 1);
  if (text === undefined) return [];
  const edits = list.variants.flatMap(({ scope }): Edit[] => {
    const entry = entryOf(scope.own.settings ?? undefined, 'INFOPLIST_FILE');
    return entry && stringOf(scope.own.settings ?? undefined, 'INFOPLIST_FILE') === value
      ? [{ ...entryLines(text, entry), text: '' }]
      : [];
  });
  return [{ path, platform: 'ios', network: network.id, topic: 'app-id', rules: [], edits }];
}
