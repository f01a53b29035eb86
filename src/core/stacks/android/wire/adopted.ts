import { appendToBlock, blockAt, elementBlock } from '../../../formats/gradle/edit.js';
import { callsIn, literal } from '../../../formats/gradle/query.js';
import { attribute } from '../../../formats/xml/query.js';
import type { Profile } from '../../../network/model.js';
import type { Edit } from '../../../text/edit.js';
import type { Change } from '../../../edits/model.js';
import { appIdRules } from '../../common/by-hand-steps.js';
import { writtenValue } from '../../common/literal-fix.js';
import { metaDataOf } from '../survey/module-manifests.js';
import { placeholdersOf } from '../survey/placeholders.js';
import { statementsOf } from '../../common/gradle/catalogs.js';
import { manifestPath, stringsOf } from '../survey/sources.js';
import type { AndroidVariant } from '../survey/variants.js';
import type { AndroidWireContext } from './context.js';

/** The form in which a tree already keeps an app ID, and what has to change so that each stage gets its own. */
interface AdoptedForm {
  /** What the manifest refers to. */
  reference: string;
  /** The string resource that is to hold it; undefined where a script gives the ID. */
  resource?: string;
  changes: Change[];
}

/** What the element of a key in the main manifest refers to, kept where each stage can be given its own ID by it. */
export function adoptedForm(
  context: AndroidWireContext,
  profile: Profile,
  key: string,
  ids: ReadonlyMap<string, string>,
): AdoptedForm | undefined {
  const { tree, model } = context;
  const path = manifestPath(model, 'main');
  const [first] = model.variants;
  const found =
    first && metaDataOf(tree, model, first, key).find((item) => item.path === path && item.inApplication);
  const written = found?.element.attributes.find(({ name }) => /:(value|resource)$/.test(name))?.value.trim();
  if (!found || written === undefined || attribute(found.element, 'tools:node')) return undefined;
  const placeholder = /^\$\{([\w.]+)\}$/.exec(written)?.[1];
  if (placeholder !== undefined && placeholder !== 'applicationId') {
    const kotlinLine = (id: string) => `manifestPlaceholders["${placeholder}"] = "${id}"`;
    const line = (id: string) =>
      isKotlin(context) ? kotlinLine(id) : `manifestPlaceholders.${placeholder} = '${id}'`;
    const chainOf = (variant: AndroidVariant) => placeholdersOf(model, variant).get(placeholder);
    const changes = scriptChanges(context, profile, ids, line, (variant) => chainOf(variant));
    return changes && { reference: written, changes };
  }
  const resource = /^@string\/([\w.]+)$/.exec(written)?.[1];
  if (resource === undefined) return undefined;
  const made = (variant: AndroidVariant) => {
    const string = stringsOf(tree, model, variant).get(resource);
    return string?.sourceSet === 'script' ? { value: string.value, chain: [string.step] } : undefined;
  };
  if (!model.variants.some((variant) => made(variant))) return { reference: written, resource, changes: [] };
  const line = (id: string) =>
    isKotlin(context)
      ? `resValue("string", "${resource}", "${id}")`
      : `resValue 'string', '${resource}', '${id}'`;
  const changes = scriptChanges(context, profile, ids, line, made);
  return changes && { reference: written, changes };
}

function isKotlin({ model }: AndroidWireContext): boolean {
  return model.module.script.endsWith('.kts');
}

/**
 * Gives each stage's build types (or flavours) their own value: where one of their own is written it is
 * changed, else a line is added to their block. Undefined where the script has no place for it.
 */
function scriptChanges(
  context: AndroidWireContext,
  profile: Profile,
  ids: ReadonlyMap<string, string>,
  line: (id: string) => string,
  chainOf: (
    variant: AndroidVariant,
  ) => { value: string | null; chain: Parameters<typeof writtenValue>[1] } | undefined,
): Change[] | undefined {
  const { tree, model, sets } = context;
  const changes: Change[] = [];
  for (const { stage, sourceSet } of sets) {
    const id = ids.get(stage) ?? '';
    const mine = model.variants.filter(({ sourceSets }) => sourceSets.includes(sourceSet));
    const others = model.variants.filter((variant) => !mine.includes(variant));
    const found = mine.map(chainOf);
    if (found.every((item) => item?.value === id)) continue;
    const base = {
      platform: 'android' as const,
      network: profile.id,
      topic: 'app-id' as const,
      rules: appIdRules,
      variants: mine.map(({ name }) => name),
    };
    const where = found.map((item) =>
      item?.value == null ? undefined : writtenValue(tree, item.chain, item.value),
    );
    const foreign = others.flatMap((variant) => {
      const item = chainOf(variant);
      const at = item?.value == null ? undefined : writtenValue(tree, item.chain, item.value);
      return at ? [`${at.path} ${at.start}`] : [];
    });
    const own = where.every((at) => at && !foreign.includes(`${at.path} ${at.start}`));
    if (own) {
      for (const at of where)
        if (at)
          changes.push({
            ...base,
            path: at.path,
            kind: 'edit',
            edits: [{ start: at.start, end: at.end, text: id }],
          });
      continue;
    }
    const edit = blockLine(context, sourceSet, line(id));
    if (!edit) return undefined;
    changes.push({ ...base, path: model.module.script, kind: 'edit', edits: [edit] });
  }
  return changes;
}

/** Adds a line to the block of a build type or flavour, which is opened where it is not there yet. */
function blockLine(context: AndroidWireContext, name: string, line: string): Edit | undefined {
  const { tree, model } = context;
  const { script } = model.module;
  const document = tree.text(script);
  const statements = statementsOf(tree, script);
  const android = blockAt(statements, ['android']);
  if (!document || !android) return undefined;
  const { text, lineEnd } = document;
  const isType = model.types.some((type) => type.name === name);
  const isFlavour = model.flavours.some((flavour) => flavour.name === name);
  if (!isType && !isFlavour) return undefined;
  const container = blockAt(statements, ['android', isType ? 'buildTypes' : 'productFlavors']);
  const block = container && elementBlock(container, name);
  if (block) return appendToBlock(text, block, line, lineEnd);
  const named = callsIn(container?.body ?? []).some(({ call }) => literal(call.args[0]?.value) === name);
  // Only the build types that are always there may be opened without being declared.
  if (named || !isType || !/^(debug|release)$/.test(name)) return undefined;
  const open = script.endsWith('.kts') ? `getByName("${name}") {` : `${name} {`;
  if (container) return appendToBlock(text, container, `${open} ${line} }`, lineEnd);
  return appendToBlock(text, android, `buildTypes { ${open} ${line} } }`, lineEnd);
}
