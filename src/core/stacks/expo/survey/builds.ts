import type { ConditionTerms } from '../../../syntax/conditions.js';
import { resolveConfig, type ConfigValue } from '../../../formats/app-config/resolve.js';
import type { Title } from '../../../roster/model.js';
import type { SurveyEdition, Variant } from '../../../facts/model.js';
import { staged } from '../../../roster/variant-stages.js';
import type { ExpoProject } from '../../common/script-packages/expo-project.js';

/** A build of an Expo project: a profile of its `eas.json`, or, without one, what runs on a desk and what ships. */
export interface ExpoBuild {
  variant: Variant;
  development: boolean;
  /** The build profiles that its own takes over from, the nearest first. */
  parents: readonly string[];
  /** What a variable is set to; undefined where it is not set, null where that cannot be determined. */
  variable: (name: string) => string | undefined | null;
  /** The configuration as this build sees it. */
  config: ConfigValue | undefined;
}

/** Every build of a project, with the stage that a title gives it. */
export function buildsOf(project: ExpoProject, title: Title | null): ExpoBuild[] {
  const { eas, json, script } = project;
  const plain: Pick<ExpoBuild, 'development' | 'parents' | 'variable'>[] = eas?.profiles.length
    ? eas.profiles.map(({ development, env, parents, hasRemoteVariables }) => ({
        development,
        parents,
        variable: (name) => env.get(name)?.value ?? (hasRemoteVariables ? null : undefined),
      }))
    : [true, false].map((development) => ({ development, parents: [], variable: () => null }));
  return plain.map(({ development, parents, variable }, at) => {
    const type = development ? 'debug' : 'release';
    const name = eas?.profiles[at]?.name ?? type;
    const given = json?.config && resolveConfig(json.config, { path: json.path, variable: () => undefined });
    const config = script?.config
      ? resolveConfig(script.config, { path: script.path, variable, given: given ?? undefined })
      : (given ?? undefined);
    return { variant: staged({ name, type, flavours: [] }, title), development, parents, variable, config };
  });
}

/** What the builds of a project say in its code; a variable that is not set has no value, not even an empty one. */
export function expoTerms(builds: readonly ExpoBuild[]) {
  return (edition: SurveyEdition, { name: variant }: Variant): ConditionTerms => {
    const build = builds.find((one) => one.variant.name === variant);
    const decided = (holds: boolean) => (holds ? ('yes' as const) : ('no' as const));
    const valueOf = (name: string) => {
      const asked = /^process\.env\.(\w+)$/.exec(name)?.[1];
      // Only variables of this beginning are put into bundles (docs.expo.dev, "Environment variables in Expo").
      if (asked === undefined || !build) return undefined;
      return asked.startsWith('EXPO_PUBLIC_') ? { value: build.variable(asked) } : { value: null };
    };
    return {
      name(name) {
        if (name === '__DEV__') return decided(build?.development === true);
        const held = valueOf(name);
        return held && (held.value === null ? 'unknown' : decided(Boolean(held.value)));
      },
      equals(left, right) {
        const text = /^(['"])(.*)\1$/.exec(right)?.[2];
        if (/(^|\.)Platform\.OS$/.test(left) && text !== undefined) return decided(text === edition.platform);
        if (left === 'process.env.NODE_ENV' && text !== undefined)
          return decided(text === (build?.development ? 'development' : 'production'));
        const held = valueOf(left);
        if (!held || (text === undefined && right !== 'undefined')) return undefined;
        return held.value === null ? 'unknown' : decided(held.value === text);
      },
    };
  };
}
