import { both, type Compiled } from '../../../syntax/compiled.js';
import { conditionHolds, expand, type Expanded } from '../../../formats/msbuild/conditions.js';
import {
  readMsBuild,
  type MsCondition,
  type MsEntry,
  type MsItem,
  type MsProperty,
} from '../../../formats/msbuild/read.js';
import type { ChainStep } from '../../../facts/evidence.js';
import { placeAt } from '../../../facts/place.js';
import { baseOf, folderOf, joinPath } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import { below } from '../../common/script-packages/packages.js';

/** An entry with the file that it is in. */
type Placed<Entry extends MsEntry> = Entry & { path: string };

/** What a property came to in one build, with the lines that made it so. */
export type PropertyValue = Expanded & { chain: ChainStep[]; source: Placed<MsProperty> };

/** A project as one build of it sees it. */
export interface EvaluatedProject {
  property(name: string): PropertyValue | undefined;
  /** Items of a type, without those whose conditions cannot hold. */
  items(type: string): (Placed<MsItem> & { sure: boolean })[];
}

const maxImports = 50;

/** The entries of a project with everything it imports, in the order of evaluation. */
export function entriesOf(tree: Tree, path: string): Placed<MsEntry>[] {
  return tree.once(`msbuild entries of ${path}`, () => {
    const seen = new Set<string>();
    const read = (file: string): Placed<MsEntry>[] => {
      if (seen.has(file) || seen.size > maxImports) return [];
      seen.add(file);
      const entries = tree.read(file, readMsBuild)?.entries ?? [];
      return entries.flatMap((entry): Placed<MsEntry>[] => {
        if (entry.is !== 'import') return [{ ...entry, path: file }];
        const wanted = entry.project.replace(/\\/g, '/').replace(/^\$\(MSBuildThisFileDirectory\)/, '');
        const target = wanted.includes('$(') ? null : joinPath(folderOf(file), wanted);
        return target !== null && tree.has(target) ? read(target) : [];
      });
    };
    // The SDK takes the nearest of these in before and after the project.
    const [props, targets, versions] = [
      'Directory.Build.props',
      'Directory.Build.targets',
      'Directory.Packages.props',
    ].map((name) => nearest(tree, folderOf(path), name));
    return [props, path, versions, targets].flatMap((file) => (file === undefined ? [] : read(file)));
  });
}

/** The file of a name in a folder or the nearest one above it. */
export function nearest(tree: Tree, folder: string, name: string): string | undefined {
  for (let at = folder; ; at = folderOf(at)) {
    const found = tree.paths.find(
      (path) => folderOf(path) === at && baseOf(path).toLowerCase() === name.toLowerCase(),
    );
    if (found !== undefined) return found;
    if (at === '') return undefined;
  }
}

/** Evaluates a project for one build: properties first, in their order, then items, as MSBuild does. */
export function evaluateProject(
  tree: Tree,
  path: string,
  given: Readonly<Record<string, string>>,
): EvaluatedProject {
  const entries = entriesOf(tree, path);
  const folder = folderOf(path);
  const fixed = new Map(
    Object.entries({
      MSBuildProjectName: baseOf(path).replace(/\.\w+proj$/, ''),
      ProjectDir: below(folder, ''),
      ...given,
    }).map(([name, value]) => [name.toLowerCase(), value]),
  );
  const known = new Map<string, PropertyValue>();
  const lookup = (name: string): Expanded | undefined => {
    const own = fixed.get(name.toLowerCase());
    return own === undefined ? known.get(name.toLowerCase()) : { value: own };
  };
  const state = (conditions: readonly MsCondition[]): Compiled =>
    conditions.reduce<Compiled>((so, { text, holds }) => {
      const one = conditionHolds(text, lookup);
      return both(so, holds ? one : one === 'unknown' ? one : one === 'yes' ? 'no' : 'yes');
    }, 'yes');
  for (const entry of entries) {
    if (entry.is !== 'property' || fixed.has(entry.name.toLowerCase())) continue;
    const holds = state(entry.conditions);
    if (holds === 'no') continue;
    const key = entry.name.toLowerCase();
    const before = known.get(key);
    const place = placeAt(entry.path, tree.text(entry.path), entry.valueSpan);
    const step = { what: entry.name, value: entry.value, place };
    const goesOn = new RegExp(`\\$\\(${entry.name}\\)`, 'i').test(entry.value);
    const chain = [...(goesOn ? (before?.chain ?? []) : []), step];
    const found: Expanded =
      holds === 'unknown'
        ? { value: null, reason: 'it is set under a condition that reading cannot decide' }
        : expand(entry.value, lookup);
    known.set(key, { ...found, chain, source: entry });
  }
  return {
    property: (name) => known.get(name.toLowerCase()),
    items: (type) =>
      entries.flatMap((entry) => {
        if (entry.is !== 'item' || entry.type !== type) return [];
        const holds = state(entry.conditions);
        if (holds === 'no') return [];
        const metadata = new Map(
          [...entry.metadata].map(([name, value]) => [name, expand(value, lookup).value ?? value] as const),
        );
        return [{ ...entry, metadata, sure: holds === 'yes' }];
      }),
  };
}
