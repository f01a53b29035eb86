import { valueAt } from '../../../text/own-values.js';
import type { Compiled } from '../../../syntax/compiled.js';
import type { ConditionTerms } from '../../../syntax/conditions.js';
import type { IsDefined } from '../../../syntax/preprocessor.js';
import type { Platform } from '../../../words/words.js';
import type { Title } from '../../../roster/model.js';
import type { SurveyEdition, Variant } from '../../../facts/model.js';
import { staged } from '../../../roster/variant-stages.js';
import { compareVersions } from '../../../text/versions.js';
import type { Tree } from '../../../tree/tree.js';
import { buildOf } from './parts.js';
import type { MauiProject } from './project.js';

export function variantsOf({ configurations }: MauiProject, title: Title | null): Variant[] {
  return configurations.map((name) => staged({ name, type: name, flavours: [] }, title));
}

const decided = (holds: boolean): Compiled => (holds ? 'yes' : 'no');

const platformNames: Record<string, Platform | null> = {
  ANDROID: 'android',
  __ANDROID__: 'android',
  IOS: 'ios',
  __IOS__: 'ios',
  MACCATALYST: null,
  __MACCATALYST__: null,
  MACOS: null,
  TVOS: null,
  WINDOWS: null,
  TIZEN: null,
  BROWSER: null,
};

/** The name that the SDK defines for a configuration: `DEBUG` of `Debug`. */
export function configurationSymbol(configuration: string): string {
  return configuration.toUpperCase().replace(/[^A-Z0-9_]/g, '_');
}

/**
 * What a build defines (learn.microsoft.com, "C# preprocessor directives", "Target frameworks in SDK-style projects"):
 * its platform, its configuration, its framework, and what the project adds.
 */
export function mauiDefines(
  tree: Tree,
  project: MauiProject,
): (edition: SurveyEdition, variant: Variant) => IsDefined {
  return ({ platform }, { name: configuration }) => {
    const given = buildOf(tree, project, platform, configuration).property('DefineConstants');
    const own = new Set((given?.value ?? '').split(/[;,\s]+/).filter(Boolean));
    const version = /^net(\d+\.\d+)/.exec(project.frameworks[platform] ?? '')?.[1] ?? '';
    return (name) => {
      if (own.has(name) || name === configurationSymbol(configuration) || name === 'TRACE') return 'yes';
      const of = valueAt(platformNames, name);
      if (of !== undefined) return decided(of === platform);
      if (name === '__MOBILE__' || name === 'NET') return 'yes';
      const framework = /^NET(\d+)_(\d+)(_OR_GREATER)?$/.exec(name);
      if (framework) {
        const asked = `${framework[1]}.${framework[2]}`;
        const order = compareVersions(version, asked);
        return decided(framework[3] === undefined ? order === 0 : order >= 0);
      }
      if (given?.value === null || /^(?:NET|ANDROID|IOS)\w*\d/.test(name)) return 'unknown';
      return 'no';
    };
  };
}

/** What a build says in C# at run time. */
export function mauiTerms({ platform }: SurveyEdition): ConditionTerms {
  const players: Record<string, Platform> = { Android: 'android', iOS: 'ios' };
  return {
    name(name) {
      const asked = /^(?:System\.)?OperatingSystem\.Is(\w+?)(?:VersionAtLeast)?\(/.exec(name)?.[1];
      if (asked === 'Android' || asked === 'IOS') return decided(asked.toLowerCase() === platform);
      return asked === undefined ? undefined : 'no';
    },
    equals(left, right) {
      const player = /(?:^|\.)DevicePlatform\.(\w+)$/.exec(right)?.[1];
      if (player === undefined || !/(?:^|\.)Platform$/.test(left)) return undefined;
      return decided(valueAt(players, player) === platform);
    },
  };
}
