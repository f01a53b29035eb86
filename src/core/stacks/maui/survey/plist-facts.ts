import { contentOf } from '../../../formats/plist/plain.js';
import { plistText, readPlist, topEntries, type PlistEntry } from '../../../formats/plist/read.js';
import type { ChainStep } from '../../../facts/evidence.js';
import type { Fact, SurveyEdition, Unresolved, Variant } from '../../../facts/model.js';
import { placeAt } from '../../../facts/place.js';
import { joinPath } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import { attributionIn } from '../../common/plist/attribution.js';
import type { StackSurvey } from '../../stack.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import { buildOf } from './parts.js';
import { platformFolder, type MauiProject } from './project.js';

export function listOf(project: MauiProject): string {
  return `${platformFolder(project, 'ios')}/Info.plist`;
}

/** A key of the property list of a build, and the file that gives it. */
interface EffectiveKey {
  entry: PlistEntry;
  path: string;
  chain: ChainStep[];
}

/** The keys of a variant: those of the list, and of the partial lists that are put into it, which go before. */
function keysOf(
  tree: Tree,
  project: MauiProject,
  { name }: Pick<Variant, 'name'>,
): Map<string, EffectiveKey> {
  const keys = new Map<string, EffectiveKey>();
  const take = (path: string, before: ChainStep[]) => {
    const list = tree.has(path) ? tree.read(path, readPlist) : undefined;
    for (const entry of list ? topEntries(list) : []) {
      const place = placeAt(path, tree.text(path), entry.value.element);
      const step = {
        what: before.length > 0 ? 'partial property list' : 'property list',
        value: plistText(entry.value),
        place,
      };
      keys.set(entry.key, { entry, path, chain: [...before, step] });
    }
  };
  take(listOf(project), []);
  for (const item of buildOf(tree, project, 'ios', name).items('PartialAppManifest')) {
    const include = item.metadata.get('include')?.replace(/\\/g, '/');
    const path = include === undefined ? null : joinPath(project.root, include);
    if (path === null || !item.sure) continue;
    const place = placeAt(item.path, tree.text(item.path), item.element);
    take(path, [{ what: 'PartialAppManifest', value: include ?? '', place }]);
  }
  return keys;
}

/** App IDs, keys and attribution IDs that the property list of a variant would hold. */
export function plistFacts(
  tree: Tree,
  project: MauiProject,
  { module }: SurveyEdition,
  { variant, context }: { variant: Variant; context: SurveyContext },
): Pick<StackSurvey, 'facts' | 'unresolved'> {
  const { profiles } = context;
  const facts: Fact[] = [];
  const unresolved: Unresolved[] = [];
  const asked = new Set(profiles.flatMap(({ ios }) => ios?.keys.map(({ key }) => key) ?? []));
  for (const [key, { entry, chain }] of keysOf(tree, project, variant)) {
    const { value } = entry;
    const place = chain.at(-1)?.place;
    if (!place) continue;
    const base = {
      platform: 'ios' as const,
      module,
      variants: [variant.name],
      effective: true as const,
      place,
      chain,
    };
    const owner = profiles.find(({ ios }) => ios?.['app-id']?.place === 'plist' && ios['app-id'].key === key);
    const app = { ...base, kind: 'app-id' as const, network: owner?.id ?? null };
    if (owner && value.type === 'string')
      facts.push({ ...app, name: key, value: value.value, carrier: 'property-list' });
    else if (owner) {
      const reason = `the key holds a ${value.type}, not a string`;
      unresolved.push({ ...app, what: `the app ID of ${owner.name}`, reason });
    }
    const own = { ...base, kind: 'plist-key' as const, network: null, name: key };
    if (asked.has(key))
      facts.push({ ...own, value: plistText(value), type: value.type, ...contentOf(value), list: 'info' });
  }
  const path = listOf(project);
  const document = tree.has(path) ? tree.read(path, readPlist) : undefined;
  if (document)
    facts.push(
      ...attributionIn(
        { path, document, text: tree.text(path) },
        { module, variant: variant.name },
        profiles,
      ),
    );
  return { facts, unresolved };
}
