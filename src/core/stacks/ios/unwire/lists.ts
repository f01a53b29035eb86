import { entryOf, stringOf } from '../../../formats/pbxproj/read.js';
import type { Edit } from '../../../text/edit.js';
import type { Change } from '../../../edits/model.js';
import { entryLines } from '../../../formats/pbxproj/edit.js';
import type { IosUnwireContext } from './context.js';
import { pathFrom } from '../wire/references.js';
import { madeList, targetLists, type TargetList } from '../wire/lists.js';
import { listRemovals } from '../../common/plist/removals.js';

/** Keys and attribution identifiers of the network, out of every property list of the target. */
export function unwireLists(context: IosUnwireContext): Change[] {
  return (targetLists(context) ?? []).flatMap((list) => unwireList(context, list));
}

function unwireList(context: IosUnwireContext, list: TargetList): Change[] {
  if (!list.text) return [];
  const { removals, isEmptied } = listRemovals(context, list.text.text, list.root);
  const base = { path: list.path, platform: 'ios' as const, network: context.network.id, rules: [] };
  if (isEmptied && list.path === madeList(context) && removals.length > 0)
    return [{ ...base, topic: 'app-id', kind: 'remove' }, ...withoutSetting(context, list)];
  return removals.map((removal) => ({ ...base, kind: 'edit', ...removal }));
}

/** The setting that names the list which wiring made. */
function withoutSetting({ tree, model, network }: IosUnwireContext, list: TargetList): Change[] {
  const { path, folder } = model.project;
  const text = tree.text(path)?.text;
  const value = pathFrom(folder, list.path);
  if (text === undefined) return [];
  const edits = list.variants.flatMap(({ scope }): Edit[] => {
    const entry = entryOf(scope.own.settings ?? undefined, 'INFOPLIST_FILE');
    return entry && stringOf(scope.own.settings ?? undefined, 'INFOPLIST_FILE') === value
      ? [{ ...entryLines(text, entry), text: '' }]
      : [];
  });
  return [{ path, platform: 'ios', network: network.id, topic: 'app-id', rules: [], kind: 'edit', edits }];
}
