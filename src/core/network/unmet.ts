import { compareVersions } from '../text/versions.js';
import type { Fact, FactKind, Survey } from '../facts/model.js';
import { type Profile } from './model.js';
import { platforms, type Platform } from '../words/words.js';

/** Something that a profile asks of a build, as a fact would show it. */
interface Need {
  platform: Platform;
  kind: FactKind;
  name: string;
  what: string;
  why: string;
  /** Whether a fact of that kind and name meets it. */
  met?: (fact: Fact) => boolean;
}

/** Everything that a profile asks of native builds and that a survey shows as facts. */
export function needsOf(profile: Profile): Need[] {
  const { android, ios } = profile;
  const atLeast = (want: string) => (fact: Fact) => compareVersions(fact.value, want) >= 0;
  return [
    ...(android?.permissions ?? []).map(({ name, why }): Need => ({
      platform: 'android',
      kind: 'permission',
      name,
      what: `the permission ${name}`,
      why,
    })),
    ...(android?.dependencies ?? []).map(({ coordinate, version, why }): Need => ({
      platform: 'android',
      kind: 'dependency',
      name: coordinate,
      what: `the dependency ${coordinate}:${version}`,
      why,
    })),
    ...(['min-sdk', 'compile-sdk'] as const).flatMap((kind): Need[] => {
      const need = android?.[kind];
      if (!need) return [];
      const what = `${kind === 'min-sdk' ? 'minSdk' : 'compileSdk'} ${need.value} or more`;
      return [{ platform: 'android', kind, name: '', what, why: need.why, met: atLeast(String(need.value)) }];
    }),
    ...(ios?.['deployment-target']
      ? [
          {
            platform: 'ios' as const,
            kind: 'deployment-target' as const,
            name: '',
            what: `the deployment target ${ios['deployment-target'].value} or newer`,
            why: ios['deployment-target'].why,
            met: atLeast(ios['deployment-target'].value),
          },
        ]
      : []),
    ...(ios?.keys ?? []).map(({ key, why }): Need => ({
      platform: 'ios',
      kind: 'plist-key',
      name: key,
      what: `the key ${key} in the property list`,
      why,
    })),
  ];
}

/** Whether a profile requires what a fact shows, though the fact belongs to no network. */
export function isWanted(profile: Profile, kind: FactKind, name: string | undefined): boolean {
  return needsOf(profile).some((need) => need.kind === kind && (need.name === '' || need.name === name));
}

/** What a profile requires and a tree does not have, for the platforms that the tree builds. */
export function unmetNeeds(
  profile: Profile,
  survey: Survey,
): { platform: Platform; what: string; why: string }[] {
  const built = platforms.filter((platform) =>
    survey.editions.some((edition) => edition.platform === platform),
  );
  const has = (need: Need) =>
    survey.facts.some(
      (fact) =>
        fact.platform === need.platform &&
        fact.kind === need.kind &&
        (need.name === '' || fact.name === need.name) &&
        (need.met?.(fact) ?? true),
    );
  const unmet = needsOf(profile)
    .filter((need) => built.includes(need.platform) && !has(need))
    .map(({ platform, what, why }) => ({ platform, what, why }));
  const pods = profile.ios?.pods[0] ?? profile.ios?.packages[0];
  const linked = survey.facts.some(
    ({ platform, kind, network }) => platform === 'ios' && kind === 'dependency' && network === profile.id,
  );
  if (pods && built.includes('ios') && !linked)
    unmet.push({
      platform: 'ios',
      what: `the SDK, as ${'name' in pods ? `the pod ${pods.name}` : `the package ${pods.product}`}`,
      why: pods.why,
    });
  return unmet;
}
