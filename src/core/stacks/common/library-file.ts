import type { Profile } from '../../network/model.js';
import { isEnrolled } from '../../roster/expected.js';
import { baseOf } from '../../text/paths.js';
import type { Tree } from '../../tree/tree.js';
import type { WiringExtras, Change } from '../../edits/model.js';
import type { SharedFact } from './package-facts.js';
import type { StackWiring, UnwireContext, WireContext } from '../stack.js';

export type Library = NonNullable<Profile['android']>['binaries'][number];

/**
 * A library that is handed out as a file: copied to its place from a file that the person names, where it is not there.
 */
export function libraryFile(
  { tree, extras }: { tree: Tree; extras: WiringExtras },
  profile: Profile,
  library: Library,
  path: string,
): StackWiring {
  const rule = 'build/binary-missing';
  const step = (what: string, why: string): StackWiring => ({
    changes: [],
    byHand: [{ platform: 'android', network: profile.id, rule, what, why, where: path }],
  });
  const source = extras.binaries.find(({ name }) => name === library.file);
  if (!source && !tree.has(path))
    return step(
      `Get ${library.file} at ${profile.site ?? profile.name}, then wire with --file FOLDER/${library.file}: it is copied to ${path}.`,
      `${profile.name}: ${library.why}`,
    );
  if (source && library.sha256 !== undefined && source.sha256 !== library.sha256)
    return step(
      `Get ${library.file} of version ${library.version} again: the named file has the hash ${source.sha256.slice(0, 12)}…, and ${library.sha256.slice(0, 12)}… is wanted.`,
      'A library of another version, or a damaged one, would go into every build.',
    );
  if (!source || tree.has(path)) return { changes: [], byHand: [] };
  const change = {
    platform: 'android' as const,
    network: profile.id,
    topic: 'binary' as const,
    rules: [rule],
  };
  return { changes: [{ ...change, path, kind: 'copy', source }], byHand: [] };
}

/** Library files of networks that lie where a build takes them in by itself. */
export function lyingLibraries(
  tree: Tree,
  profiles: readonly Profile[],
  isTaken: (path: string) => boolean,
): SharedFact[] {
  return profiles.flatMap(({ id, android }) =>
    (android?.binaries ?? []).flatMap(({ file }): SharedFact[] => {
      const path = tree.paths.find((one) => baseOf(one) === file && isTaken(one));
      if (path === undefined) return [];
      const place = { path, line: 1, column: 1 };
      const chain = [{ what: 'library file', value: path, place }];
      return [{ kind: 'binary', network: id, name: file, value: path, effective: true, place, chain }];
    }),
  );
}

/** Library files that networks need on Android and that do not are there yet, copied into a folder. */
export function wireLibraries(
  context: WireContext & { tree: Tree },
  profiles: readonly Profile[],
  folder: string,
): StackWiring[] {
  const lying = new Set(context.survey.facts.flatMap(({ kind, name }) => (kind === 'binary' ? [name] : [])));
  return profiles
    .filter(({ id }) => isEnrolled(context.title, id, 'android'))
    .flatMap((profile) =>
      (profile.android?.binaries ?? [])
        .filter(({ file }) => !lying.has(file))
        .map((library) => libraryFile(context, profile, library, `${folder}/${library.file}`)),
    );
}

/** Library files of a removed network. */
export function unwireLibraries({ network, survey }: UnwireContext): Change[] {
  const mine = survey.facts.filter((fact) => fact.kind === 'binary' && fact.network === network.id);
  return [...new Set(mine.map(({ value }) => value))].map((path) => ({
    path,
    platform: 'android',
    network: network.id,
    topic: 'binary',
    rules: [],
    kind: 'remove',
  }));
}
