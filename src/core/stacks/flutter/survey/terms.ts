import { valueAt } from '../../../text/own-values.js';
import type { Compiled } from '../../../syntax/compiled.js';
import type { ConditionTerms } from '../../../syntax/conditions.js';
import type { SurveyEdition, Variant } from '../../../facts/model.js';

/** The modes that Flutter builds in; each native variant is built in one. */
export type Mode = 'debug' | 'profile' | 'release';

/** The mode of a native variant: its build type, or how its configuration begins (`Debug-staging`). */
export function modeOf({ type }: Pick<Variant, 'type'>): Mode | undefined {
  const begins = type.toLowerCase().split(/[-_ ]/)[0];
  return begins === 'debug' || begins === 'profile' || begins === 'release' ? begins : undefined;
}

/** The flavour of a native variant, as `--flavor` names it; empty for none. */
export function flavourOf(
  { platform }: Pick<SurveyEdition, 'platform'>,
  { type, flavours }: Variant,
): string {
  if (platform === 'ios') return /^(?:debug|profile|release)-(.+)$/i.exec(type)?.[1] ?? '';
  return flavours
    .map((name, at) => (at === 0 ? name : name.charAt(0).toUpperCase() + name.slice(1)))
    .join('');
}

const decided = (holds: boolean): Compiled => (holds ? 'yes' : 'no');

/** What the build says in Dart (api.flutter.dev, "foundation": kDebugMode, kReleaseMode; "services": appFlavor). */
export function flutterTerms(edition: SurveyEdition, variant: Variant): ConditionTerms {
  const mode = modeOf(variant);
  const flavour = flavourOf(edition, variant);
  const modes: Record<string, Mode> = {
    kDebugMode: 'debug',
    kProfileMode: 'profile',
    kReleaseMode: 'release',
    "bool.fromEnvironment('dart.vm.product')": 'release',
    "bool.fromEnvironment('dart.vm.profile')": 'profile',
  };
  return {
    name(name) {
      const asked = valueAt(modes, name.replace(/"/g, "'").replace(/^foundation\./, ''));
      if (asked) return mode === undefined ? 'unknown' : decided(mode === asked);
      const platform = /^(?:\w+\.)?Platform\.is(Android|IOS|MacOS|Windows|Linux|Fuchsia)$/.exec(name)?.[1];
      if (platform) return decided(platform.toLowerCase() === edition.platform);
      if (name === 'kIsWeb') return 'no';
      return name.startsWith('bool.fromEnvironment(') ? 'unknown' : undefined;
    },
    equals(left, right) {
      const platform = /^TargetPlatform\.(\w+)$/.exec(right)?.[1];
      if (platform !== undefined && /(^|\.)(defaultTargetPlatform|platform)$/.test(left))
        return decided(platform.toLowerCase() === edition.platform);
      const text = /^(['"])(.*)\1$/.exec(right)?.[2];
      if (text === undefined) return undefined;
      if (/(^|\.)Platform\.operatingSystem$/.test(left)) return decided(text === edition.platform);
      if (left === 'appFlavor' || /^String\.fromEnvironment\(['"]FLUTTER_APP_FLAVOR['"]\)$/.test(left))
        return decided(text === flavour);
      return left.startsWith('String.fromEnvironment(') ? 'unknown' : undefined;
    },
  };
}
