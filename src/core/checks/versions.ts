import type { Profile } from '../network/model.js';
import { compareVersions } from '../text/versions.js';

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
  const floor = /(\d+(?:\.\d+)*)/.exec(requirement.replace(/<\s*[\d.]+/g, ''))?.[1];
  return floor !== undefined && compareVersions(version, floor) < 0;
}

/** Whether a network numbers its SDKs alike on both platforms, so that their versions can be compared. */
export function sameLine({ android, ios }: Profile): boolean {
  const major = (version: string | undefined) => version?.split('.')[0];
  const mine = major(android?.dependencies[0]?.version);
  return mine !== undefined && mine === major(ios?.pods[0]?.version ?? ios?.packages[0]?.version);
}

/** The symbols without which a network's code is left out of a build of a stack. */
export function symbolsNeeded({ stacks: { unity } }: Profile, stack: string): readonly string[] {
  return stack === 'unity' && unity && 'package' in unity ? unity.symbols : [];
}

/** Where a network's package for a stack is published, when it is not the usual place. */
export function feedNeeded({ stacks: { unity, maui } }: Profile, stack: string): string | undefined {
  if (stack === 'unity') return unity && 'package' in unity ? unity.registry?.url : undefined;
  return stack === 'maui' && maui && 'package' in maui ? maui.source : undefined;
}

/** The command of a network's package that fetches its native libraries. */
export function nativeCommand({ stacks: { unity } }: Profile): string {
  return (unity && 'package' in unity ? unity.native?.command : undefined) ?? '';
}

/** The lowest framework version that a network's package for a stack runs on; undefined where it names none. */
export function frameworkNeeded(
  profile: Profile,
  stack: string,
): { package: string; version: string } | undefined {
  const { flutter, 'react-native': reactNative, unity, maui } = profile.stacks;
  if (stack === 'flutter' && flutter && 'package' in flutter && flutter.sdk !== undefined)
    return { package: flutter.package, version: flutter.sdk };
  if (stack === 'react-native' && reactNative && 'package' in reactNative) {
    const version = reactNative['react-native'];
    return version === undefined ? undefined : { package: reactNative.package, version };
  }
  if (stack === 'unity' && unity && 'package' in unity && unity.editor !== undefined)
    return { package: unity.package, version: unity.editor };
  if (stack === 'maui' && maui && 'package' in maui) {
    const version = /^net(\d+\.\d+)-/.exec(maui.frameworks[0] ?? '')?.[1];
    return version === undefined ? undefined : { package: maui.package, version };
  }
  return undefined;
}
