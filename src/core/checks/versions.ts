import type { Profile } from '../network/model.js';
import { groupBy } from '../text/group-by.js';
import { compareVersions, floorOf } from '../text/versions.js';
import type { Platform } from '../words/words.js';

/** The version of a dependency that a profile describes, under whichever name it goes. */
export function wantedVersion({ android, ios, stacks }: Profile, name: string): string | undefined {
  const published = Object.values(stacks).flatMap((needs) => (needs && 'package' in needs ? [needs] : []));
  const plain = name.split('/')[0] ?? name;
  return (
    android?.dependencies.find(({ coordinate }) => coordinate === name)?.version ??
    ios?.pods.find((pod) => pod.name === plain)?.version ??
    ios?.packages.find(({ product }) => product === name)?.version ??
    published.find((one) => one.package === name)?.version
  );
}

/** Whether a version is older than what a requirement such as `~> 6.2` begins with. */
export function isOlder(version: string, requirement: string): boolean {
  const floor = floorOf(requirement.replace(/<\s*[\w.-]+/g, ''));
  return floor !== undefined && compareVersions(version, floor) < 0;
}

/** Whether a network numbers its SDKs alike on both platforms, so that their versions can be compared. */
export function sameLine({ android, ios }: Profile): boolean {
  const major = (version: string | undefined) => version?.split('.')[0];
  const mine = major(android?.dependencies[0]?.version);
  return mine !== undefined && mine === major(ios?.pods[0]?.version ?? ios?.packages[0]?.version);
}

/**
 * The dependencies of a network that are published together: those of a group that its profile names, else those that
 * it describes at the same version.
 */
export function sharedVersions({ android, ios }: Profile, platform: Platform): ReadonlySet<string>[] {
  const all =
    platform === 'android'
      ? (android?.dependencies ?? []).map(({ coordinate, version, together }) => ({
          name: coordinate,
          key: together ?? `${coordinate.split(':')[0] ?? ''} ${version}`,
        }))
      : (ios?.pods ?? []).map(({ name, version, together }) => ({ name, key: together ?? `at ${version}` }));
  return [...groupBy(all, ({ key }) => key).values()]
    .filter((group) => group.length > 1)
    .map((group) => new Set(group.map(({ name }) => name)));
}
