import type { PlistValue } from '../../../formats/plist/read.js';
import { appendChild } from '../../../formats/xml/edit.js';
import { escapeXml } from '../../../text/escape-xml.js';
import type { TextDocument } from '../../../text/document.js';
import type { Edit } from '../../../text/edit.js';
import type { Change, ChangeBase } from '../../../edits/model.js';
import { setPbxString } from '../../../formats/pbxproj/edit.js';
import { settingOf } from '../survey/settings.js';
import { plistOf } from '../survey/targets.js';
import { pathFrom } from './references.js';
import type { IosWireContext, StagedVariant } from './context.js';
import { madeHead, madeTail } from '../../common/plist/made.js';

/** A property list to write keys into: an existing one, or a new one. */
export type TargetList =
  | { path: string; text: TextDocument; root: PlistValue & { type: 'dict' }; variants: StagedVariant[] }
  | { path: string; text: null; root: null; variants: StagedVariant[] };

/**
 * The property lists of the target. A target with a fully generated list gets a file for the keys that the build cannot
 * generate. Undefined if a list exists but cannot be edited as text.
 */
export function targetLists(context: IosWireContext): TargetList[] | undefined {
  const { tree, variants } = context;
  const lists = new Map<string, TargetList>();
  for (const variant of variants) {
    const found = plistOf(tree, variant);
    if (found) {
      const { path, text, document } = found;
      if (!text || document.root?.type !== 'dict') return undefined;
      const known = lists.get(path);
      if (known) known.variants.push(variant);
      else lists.set(path, { path, text, root: document.root, variants: [variant] });
    } else {
      if (!isGenerated(variant)) return undefined;
      const path = madeList(context);
      const known = lists.get(path);
      if (known) known.variants.push(variant);
      else lists.set(path, { path, text: null, root: null, variants: [variant] });
    }
  }
  return [...lists.values()];
}

/** Whether the property list is made by the build, with no file behind it. */
function isGenerated({ scope }: StagedVariant): boolean {
  const file = settingOf(scope, 'INFOPLIST_FILE')?.value ?? '';
  return file === '' && /^yes$/i.test(settingOf(scope, 'GENERATE_INFOPLIST_FILE')?.value ?? '');
}

/** Where to put the file for a generated property list: outside of synchronised folders. */
export function madeList({ model }: Pick<IosWireContext, 'model'>): string {
  const { folder } = model.project;
  return `${folder ? `${folder}/` : ''}${model.target.name.replace(/[^\w.+-]/g, '-')}-Info.plist`;
}

/** Adds a key and the lines of its value, in steps of two blanks, to a list. */
export function addKey(
  context: IosWireContext,
  list: TargetList,
  key: string,
  value: readonly string[],
  given: Omit<ChangeBase, 'path'>,
): Change[] {
  const lines = [`<key>${escapeXml(key)}</key>`, ...value];
  if (list.text)
    return [
      {
        ...given,
        path: list.path,
        kind: 'edit',
        edits: appendChild(list.text.text, list.root.element, lines, list.text.lineEnd),
      },
    ];
  const tabbed = lines.map((line) => line.replace(/^(?: {2})+/, (blanks) => '\t'.repeat(blanks.length / 2)));
  return [
    {
      ...given,
      path: list.path,
      kind: 'create',
      content: { head: madeHead, lines: [tabbed.map((line) => `\t${line}`).join('\n')], tail: madeTail },
    },
    ...namedList(context, list, given),
  ];
}

/** The setting that names a new property list, in every configuration. */
function namedList(
  { tree, model }: IosWireContext,
  list: TargetList,
  given: Omit<ChangeBase, 'path'>,
): Change[] {
  const { path, folder } = model.project;
  const document = tree.text(path);
  if (!document) return [];
  const value = pathFrom(folder, list.path);
  const edits = list.variants.flatMap(({ scope }): Edit[] =>
    scope.own.settings
      ? setPbxString(document.text, scope.own.settings, 'INFOPLIST_FILE', value, document.lineEnd)
      : [],
  );
  return [{ ...given, path, kind: 'edit', edits }];
}
