import { valueAt } from '../../../text/own-values.js';
import type { Compiled } from '../../../syntax/compiled.js';
import type { ConditionTerms } from '../../../syntax/conditions.js';
import type { IsDefined } from '../../../syntax/preprocessor.js';
import { unityNode, type UnityNode, type UnityYaml } from '../../../formats/unity-yaml/read.js';
import type { Platform } from '../../../words/words.js';
import type { Title } from '../../../roster/model.js';
import type { SurveyEdition, Variant } from '../../../facts/model.js';
import { staged } from '../../../roster/variant-stages.js';
import { compareVersions } from '../../../text/versions.js';
import type { Tree } from '../../../tree/tree.js';
import { platformEntry, type UnityProject } from './project.js';
import { furtherDefines } from './sources.js';

/** The builds of a project: with the switch "Development Build", and without. */
const buildNames = ['development', 'release'] as const;

export function variantsOf(title: Title | null): Variant[] {
  return buildNames.map((name) => staged({ name, type: name, flavours: [] }, title));
}

export const isDevelopment = ({ type }: Pick<Variant, 'type'>): boolean => type === 'development';

const decided = (holds: boolean): Compiled => (holds ? 'yes' : 'no');

/** Scripting symbols, with the map of all platforms and the entry of one. */
interface PlatformSymbols {
  names: string[];
  map: UnityNode | undefined;
  entry: UnityNode | undefined;
}

/** The scripting symbols of a platform. */
export function symbolsOf({ settings }: UnityProject, platform: Platform): PlatformSymbols {
  return symbolsIn(settings, platform);
}

/** The symbols that settings for players give a platform. */
export function symbolsIn(settings: UnityYaml, platform: Platform): PlatformSymbols {
  const map = unityNode(settings, ['PlayerSettings', 'scriptingDefineSymbols']);
  const entry = platformEntry(map, platform);
  return { names: entry?.value.split(/[;,\s]+/).filter(Boolean) ?? [], map, entry };
}

/** Names that Unity defines for other players than these, and in the editor. */
const elsewhere =
  /^UNITY_(?:EDITOR|STANDALONE|WEBGL|TVOS|VISIONOS|WSA|PS[45]|SWITCH|XBOX|GAMECORE|SERVER|EMBEDDED)\w*$/;

/** What a build defines (Unity manual, "Conditional compilation in Unity"). */
export function unityDefines(
  tree: Tree,
  project: UnityProject,
): (edition: SurveyEdition, variant: Variant) => IsDefined {
  const further = furtherDefines(tree, project);
  return ({ platform }, variant) => {
    const own = new Set(symbolsOf(project, platform).names);
    return (name) => {
      if (name === 'UNITY_ANDROID') return decided(platform === 'android');
      if (name === 'UNITY_IOS' || name === 'UNITY_IPHONE') return decided(platform === 'ios');
      if (name === 'DEVELOPMENT_BUILD') return decided(isDevelopment(variant));
      if (own.has(name) || further.sure.has(name)) return 'yes';
      if (elsewhere.test(name)) return 'no';
      const version = /^UNITY_(\d+)(?:_(\d+))?(?:_(\d+))?_OR_NEWER$/.exec(name);
      if (version && project.editor) {
        const wanted = version.slice(1).filter(Boolean).join('.');
        return decided(compareVersions(project.editor.version, wanted) >= 0);
      }
      const open =
        /^(?:DEBUG|TRACE|UNITY_|ENABLE_|NET_|NETFX|CSHARP_|PLATFORM_)/.test(name) || further.open.has(name);
      return open ? 'unknown' : 'no';
    };
  };
}

/** What a build says in C# at run time, and in build steps while it is made. */
export function unityTerms({ platform }: SurveyEdition, variant: Variant): ConditionTerms {
  const players: Record<string, Platform> = { Android: 'android', IPhonePlayer: 'ios', iOS: 'ios' };
  return {
    name(name) {
      if (/(?:^|\.)(?:Debug\.isDebugBuild|development)$/.test(name)) return decided(isDevelopment(variant));
      if (name === 'Application.isEditor') return 'no';
      return name === 'Application.isMobilePlatform' ? 'yes' : undefined;
    },
    equals(left, right) {
      const player = /(?:^|\.)(?:RuntimePlatform|BuildTarget)\.(\w+)$/.exec(right)?.[1];
      if (player === undefined || !/(?:^|\.)(?:platform|activeBuildTarget|target)$/.test(left))
        return undefined;
      return decided(valueAt(players, player) === platform);
    },
  };
}
