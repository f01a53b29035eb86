import type { Profile } from '../../network/model.js';
import type { Platform } from '../../words/words.js';
import type { Fact, Unresolved } from '../../facts/model.js';
import type { Effective } from '../../facts/effective.js';
import { placeAt } from '../../facts/place.js';
import { baseOf, isWithin } from '../../text/paths.js';
import type { Tree } from '../../tree/tree.js';
import { companionIdentifiers } from './companion.js';

interface CompanionContext {
  tree: Tree;
  platform: Platform;
  module: string;
  variant: string;
  profiles: readonly Profile[];
  /** The folder below which a copy concerns this application. */
  home: string;
  /** The folders in which the build looks, the strongest first. */
  folders: readonly string[];
  /** Whether the build takes a file with it; without it, every file that is in its place is taken. */
  built?: (path: string) => boolean;
}

/** The companion files of networks: where each lies, and which application it was made for. */
export function companionFacts(context: CompanionContext): { facts: Fact[]; unresolved: Unresolved[] } {
  const facts: Fact[] = [];
  const unresolved: Unresolved[] = [];
  const { tree, platform, module, variant, profiles, home, folders, built = () => true } = context;
  for (const profile of profiles) {
    const companion = profile[platform]?.companion;
    if (!companion) continue;
    const right = folders.map((folder) => (folder ? `${folder}/${companion.file}` : companion.file));
    const lying = right.filter((path) => tree.has(path));
    const used = lying.find(built) ?? lying[0];
    const astray = tree.paths.filter(
      (path) => baseOf(path) === baseOf(companion.file) && isWithin(path, home) && !right.includes(path),
    );
    const isBuilt = (path: string): Effective => built(path) || { reason: 'outside-target' };
    for (const path of [...(used === undefined ? [] : [used]), ...astray]) {
      const base = {
        kind: 'companion' as const,
        network: profile.id,
        platform,
        module,
        variants: [variant],
        name: path,
        effective: path !== used ? { reason: 'wrong-folder' as const } : isBuilt(path),
      };
      const found = companionIdentifiers(tree, path, companion);
      const start = { path, line: 1, column: 1 };
      for (const { value, ...span } of found) {
        const place = placeAt(path, span.start === span.end ? undefined : tree.text(path), span);
        facts.push({ ...base, value, place, chain: [{ what: 'companion file', value, place }] });
      }
      if (found.length === 0)
        unresolved.push({
          ...base,
          what: `the application that ${path} was made for`,
          reason: `it has no ${companion.identifier.join('.')}, or cannot be read`,
          place: start,
          chain: [{ what: 'companion file', value: null, place: start }],
        });
    }
  }
  return { facts, unresolved };
}
