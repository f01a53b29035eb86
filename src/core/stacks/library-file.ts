import type { Profile } from '../network/model.js';
import type { Tree } from '../tree/tree.js';
import type { WiringExtras } from '../wiring/model.js';
import type { StackWiring } from './stack.js';

export type Library = NonNullable<Profile['android']>['binaries'][number];

/** A library that is handed out as a file: copied to its place from a file that the person names, where it is not there. */
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
  return { changes: [{ ...change, path, source }], byHand: [] };
}
