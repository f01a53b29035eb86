import { callsIn, literal, pathOf } from '../../../formats/gradle/query.js';
import type { Argument, Expression } from '../../../formats/gradle/model.js';
import type { Profile } from '../../../network/model.js';
import type { Fact } from '../../../facts/model.js';
import { placeAt } from '../../../facts/place.js';
import { globMatcher } from '../../../text/globs.js';
import { baseOf, folderOf, joinPath } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import type { DependencyCall } from './dependency-calls.js';
import type { Layer } from './libraries.js';
import type { AndroidVariant } from './variants.js';

interface BinaryContext {
  layer: Layer;
  calls: readonly DependencyCall[];
  profiles: readonly Profile[];
  module: string;
  variant: AndroidVariant;
}

/**
 * Libraries that are handed out as files and that a variant takes in by `files("libs/x.aar")` or
 * `fileTree("libs")`: there, or named and not there.
 */
export function binaryFacts(tree: Tree, { layer, calls, profiles, module, variant }: BinaryContext): Fact[] {
  const wanted = profiles.flatMap(({ id, android }) =>
    (android?.binaries ?? []).map(({ file }) => ({ id, file })),
  );
  if (wanted.length === 0) return [];
  return calls.flatMap(({ call, script, configuration }) =>
    call.args.flatMap(({ value }) =>
      wanted.flatMap(({ id, file }): Fact[] => {
        const found = takes(tree, value, file, layer.model.module.folder);
        if (!found) return [];
        const place = placeAt(script, tree.text(script), call);
        const chain = [{ what: configuration, value: found.path, place }];
        return [
          {
            kind: 'binary',
            network: id,
            platform: 'android',
            module,
            variants: [variant.name],
            name: file,
            value: found.path,
            effective: found.there || { reason: 'no-such-file' },
            place,
            chain,
          },
        ];
      }),
    ),
  );
}

/** The names of the files that a line of dependencies takes in by `files(…)`. */
export function binaryNames(call: Expression & { type: 'call' }): string[] {
  return call.args.flatMap(({ value }) => {
    if (value.type !== 'call' || pathOf(value.callee) !== 'files') return [];
    return value.args.flatMap((arg) => baseOf(literal(arg.value) ?? ''));
  });
}

function takes(
  tree: Tree,
  value: Expression,
  file: string,
  folder: string,
): { path: string; there: boolean } | undefined {
  if (value.type !== 'call') return undefined;
  const name = pathOf(value.callee);
  if (name === 'files') {
    const named = value.args.flatMap((arg) => literal(arg.value) ?? []).find((path) => baseOf(path) === file);
    const path = named === undefined ? null : joinPath(folder, named);
    return path === null ? undefined : { path, there: tree.has(path) };
  }
  if (name !== 'fileTree') return undefined;
  const directory = literal(
    (value.args.find((arg) => arg.name === 'dir') ?? mapped(value.args[0]?.value, 'dir')[0] ?? value.args[0])
      ?.value,
  );
  const home = directory === undefined ? null : joinPath(folder, directory);
  if (home === null) return undefined;
  const includes = [
    ...value.args.filter((arg) => arg.name === 'include' || arg.name === 'includes'),
    ...callsIn(value.body ?? []).flatMap(({ path, call }) => (path === 'include' ? call.args : [])),
    ...mapped(value.args[0]?.value, 'include'),
  ];
  const patterns = includes.length > 0 ? includes.flatMap((arg) => texts(arg.value)) : ['**'];
  const found = tree.paths.find(
    (path) => baseOf(path) === file && (folderOf(path) === home || folderOf(path).startsWith(`${home}/`)),
  );
  const fits =
    found !== undefined && patterns.some((pattern) => globMatcher(pattern)(found.slice(home.length + 1)));
  return fits ? { path: found, there: true } : undefined;
}

/** The values under a key of `mapOf("dir" to "libs")`. */
function mapped(value: Expression | undefined, key: string): Argument[] {
  if (value?.type !== 'call' || pathOf(value.callee) !== 'mapOf') return [];
  return value.args.flatMap(({ value: pair }) =>
    pair.type === 'binary' && pair.operator === 'to' && literal(pair.left) === key
      ? [{ value: pair.right }]
      : [],
  );
}

function texts(value: Expression): string[] {
  const plain = literal(value);
  if (plain !== undefined) return [plain];
  if (value.type === 'list') return value.items.flatMap((item) => texts(item.value));
  return value.type === 'call' ? value.args.flatMap((arg) => texts(arg.value)) : [];
}
