import { valueAt } from '../text/own-values.js';
import type { Profile } from './model.js';
import type { StackNeeds } from './needs.js';
import { nativeLanguages, type LanguageName } from '../languages/index.js';

/** A stack that builds both platforms from one source, as profiles name it. */
export type SharedStack = keyof StackNeeds;

/** The languages that code of a stack is written in. */
const languages: Record<string, readonly LanguageName[]> = {
  'native-android': ['kotlin', 'java'],
  'native-ios': ['swift', 'objective-c'],
  flutter: ['dart'],
  'react-native': ['typescript'],
  expo: ['typescript'],
  unity: ['csharp'],
  maui: ['csharp'],
};

/** Stacks whose packages bring their native half as a pod, which sets the linker flags that it needs. */
const byPods: ReadonlySet<string> = new Set(['flutter', 'react-native', 'expo']);

/** The package by which a network is published for a stack. */
export interface StackPackage {
  package: string;
  version: string;
  why: string;
}

/** The package of a network for a stack; undefined where it has none, or the stack has no packages of its own. */
export function packageFor({ stacks }: Profile, stack: string): StackPackage | undefined {
  const needs = stacks[stack as SharedStack];
  return needs && 'package' in needs ? needs : undefined;
}

const known = new WeakMap<Profile, Map<string, Profile>>();

/**
 * A profile as a stack has to meet it: with the code of its languages, and, where the network is published as a
 * package for it, without the native dependencies, repositories and linker flags, which that package brings.
 */
export function profileFor(profile: Profile, stack: string): Profile {
  const mine = known.get(profile) ?? new Map<string, Profile>();
  known.set(profile, mine);
  const made = mine.get(stack) ?? adapted(profile, stack);
  mine.set(stack, made);
  return made;
}

function adapted(profile: Profile, stack: string): Profile {
  const published = packageFor(profile, stack) !== undefined;
  // Without a package the SDK is called from the native code of the title's own.
  const native: readonly LanguageName[] = published || stack.startsWith('native-') ? [] : nativeLanguages();
  const compiled = valueAt(languages, stack);
  const own = compiled && [...compiled, ...native];
  const code = own
    ? Object.fromEntries(own.flatMap((name) => (profile.code[name] ? [[name, profile.code[name]]] : [])))
    : profile.code;
  if (!published) return { ...profile, code };
  const { android, ios } =
    stack === 'expo' ? withPlugin(profile) : stack === 'unity' ? withLibrary(profile) : profile;
  return {
    ...profile,
    code,
    ...(android ? { android: { ...android, dependencies: [], repositories: [] } } : {}),
    ...(ios
      ? { ios: { ...ios, pods: [], packages: [], ...(byPods.has(stack) ? { 'linker-flags': [] } : {}) } }
      : {}),
  };
}

/** What is left to ask for where a package brings an Android library with a manifest of its own. */
function withLibrary({ android, ios }: Profile): Pick<Profile, 'android' | 'ios'> {
  const own = android && { ...android, permissions: [], components: [], binaries: [] };
  return { ...(own ? { android: own } : {}), ...(ios ? { ios } : {}) };
}

/** What is left to ask for where a plugin of the network's own writes the native projects. */
function withPlugin({ android, ios }: Profile): Pick<Profile, 'android' | 'ios'> {
  const { companion: _a, plugin: _b, application: _c, ...restOfAndroid } = android ?? {};
  const { companion: _d, ...restOfIos } = ios ?? {};
  return {
    ...(android
      ? { android: { ...(restOfAndroid as typeof android), permissions: [], components: [], binaries: [] } }
      : {}),
    ...(ios ? { ios: restOfIos as typeof ios } : {}),
  };
}
