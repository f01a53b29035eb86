import { removeLine } from '../../../text/lines.js';
import { entryLines, removeWords } from '../../../formats/pbxproj/edit.js';
import { entryOf } from '../../../formats/pbxproj/read.js';
import { readXcconfig } from '../../../formats/xcconfig/read.js';
import { baseOf, folderOf, joinPath } from '../../../text/paths.js';
import type { Edit } from '../../../text/edit.js';
import type { Change } from '../../../edits/model.js';
import { filePaths, mainGroupOf } from '../survey/project.js';
import { splitKey } from '../survey/setting-conditions.js';
import { objectLines, ownItems } from './objects.js';
import { type IosUnwireContext, othersNeed, staysNeeded } from './context.js';
import type { StagedVariant } from '../wire/context.js';
import { ownCondition } from '../wire/placebook.js';
import { ownFile } from '../wire/settings.js';

/** Settings that hold the network's app IDs, linker flags, and the condition that a placebook needed. */
export function unwireSettings(context: IosUnwireContext): Change[] {
  return context.variants.flatMap((variant) => [
    ...inProject(context, variant),
    ...inBaseFile(context, variant),
  ]);
}

/** Linker flags that wiring put in for the network alone. */
function flagsOf(context: IosUnwireContext): string[] {
  return (context.network.ios?.['linker-flags'] ?? [])
    .map(({ flag }) => flag)
    .filter(
      (flag) =>
        context.added.has(`linker flag ${flag}`) &&
        !othersNeed(
          context,
          ({ ios }) => ios?.['linker-flags'].some((other) => other.flag === flag) ?? false,
        ),
    );
}

/** Whether a setting is the network's: by its name, or because it holds one of its app IDs. */
function holdsAppId({ network, recogniser }: IosUnwireContext, key: string, value: string): boolean {
  const place = network.ios?.['app-id'];
  if (place?.place !== 'plist') return false;
  if (splitKey(key).name === place.setting) return true;
  return recogniser
    .recognise(value.trim())
    .some((found) => found.network === network.id && found.kind === 'app');
}

function inProject(context: IosUnwireContext, { scope, name }: StagedVariant): Change[] {
  const { tree, model, network } = context;
  const { path } = model.project;
  const text = tree.text(path)?.text;
  const { settings } = scope.own;
  if (text === undefined || !settings) return [];
  const base = { path, platform: 'ios' as const, network: network.id, rules: [], variants: [name] };
  const ids = settings.entries.filter(
    ({ key, value }) => value.type === 'string' && holdsAppId(context, key, value.value),
  );
  const flags = removeWords(text, entryOf(settings, 'OTHER_LDFLAGS'), flagsOf(context));
  const conditions = staysNeeded(context)
    ? []
    : [
        ...removeWords(text, entryOf(settings, 'SWIFT_ACTIVE_COMPILATION_CONDITIONS'), [ownCondition]),
        ...removeWords(text, entryOf(settings, 'GCC_PREPROCESSOR_DEFINITIONS'), [`${ownCondition}=1`]),
      ];
  const change = (topic: Change['topic'], edits: Edit[]): Change[] =>
    edits.length > 0 ? [{ ...base, topic, kind: 'edit', edits }] : [];
  return [
    ...change(
      'app-id',
      ids.map((entry) => ({ ...entryLines(text, entry), text: '' })),
    ),
    ...change('linker', flags).map((each) => ({
      ...each,
      adds: flagsOf(context).map((flag) => `linker flag ${flag}`),
    })),
    ...change('placebook', conditions),
  ];
}

function inBaseFile(context: IosUnwireContext, variant: StagedVariant): Change[] {
  const { tree, network } = context;
  const { base } = variant.scope.own;
  const document = base === null ? undefined : tree.text(base);
  if (base === null || !document) return [];
  const { text } = document;
  const { settings, includes } = readXcconfig(text);
  const flags = flagsOf(context);
  const edits: Edit[] = [];
  for (const setting of settings) {
    if (holdsAppId(context, setting.key, setting.value)) edits.push(removeLine(text, setting));
    else if (splitKey(setting.key).name === 'OTHER_LDFLAGS') {
      const left = setting.value.split(/\s+/).filter((word) => !flags.includes(word));
      if (left.length === setting.value.split(/\s+/).length) continue;
      if (left.join(' ') === '$(inherited)') edits.push(removeLine(text, setting));
      else {
        const at = text.indexOf(setting.value, setting.start);
        edits.push({ start: at, end: at + setting.value.length, text: left.join(' ') });
      }
    }
  }
  if (edits.length === 0) return [];
  const change = {
    path: base,
    platform: 'ios' as const,
    network: network.id,
    topic: 'app-id' as const,
    rules: [],
  };
  const gone = edits.filter(({ text: left }) => left === '').length;
  const [include] = includes;
  if (base !== ownFile(context, variant.scope.own.name) || gone < settings.length || !include)
    return [{ ...change, kind: 'edit', edits }];
  return [{ ...change, kind: 'remove' }, ...restored(context, variant, base, include.path)];
}

/** Makes the file that Syndexa's own base file included the base again. */
function restored(
  { tree, model, network }: IosUnwireContext,
  { scope }: StagedVariant,
  own: string,
  included: string,
): Change[] {
  const { path, objects, folder } = model.project;
  const text = tree.text(path)?.text;
  const paths = filePaths(objects, mainGroupOf(model.project), folder);
  const idOf = (file: string | null) => [...paths].find(([, at]) => at === file)?.[0];
  const before = idOf(joinPath(folderOf(own), included));
  const mine = idOf(own);
  const reference = entryOf(scope.own.value, 'baseConfigurationReference')?.value;
  if (text === undefined || before === undefined || mine === undefined || !reference) return [];
  const behind = /^ \/\*[^*\n]*\*\//.exec(text.slice(reference.end, reference.end + 300))?.[0].length ?? 0;
  const edits = [
    { start: reference.start, end: reference.end + behind, text: `${before} /* ${baseOf(included)} */` },
    ...objectLines(text, objects, [mine]),
    ...ownItems(text, objects, [mine]),
  ];
  return [{ path, platform: 'ios', network: network.id, topic: 'app-id', rules: [], kind: 'edit', edits }];
}
