import { globMatcher } from '../../../text/globs.js';

/** One condition of a build setting: `sdk=iphoneos*`. */
interface SettingCondition {
  kind: string;
  pattern: string;
}

/** Splits `NAME[sdk=iphoneos*][arch=arm64]`, also written `NAME[sdk=iphoneos*,arch=arm64]`. */
export function splitKey(key: string): { name: string; conditions: SettingCondition[] } {
  const bracket = key.indexOf('[');
  if (bracket < 0) return { name: key, conditions: [] };
  const conditions = [...key.slice(bracket).matchAll(/\[([^\]]*)\]/g)]
    .flatMap((match) => (match[1] ?? '').split(','))
    .map((text) => {
      const [kind = '', pattern = ''] = text.split('=');
      return { kind: kind.trim(), pattern: pattern.trim() };
    });
  return { name: key.slice(0, bracket), conditions };
}

/** Whether a condition holds for what goes to a store: a device build of one configuration. */
export function conditionHolds({ kind, pattern }: SettingCondition, configuration: string): boolean {
  if (kind === 'config') return matches(pattern, configuration);
  if (kind === 'sdk') return matches(pattern, 'iphoneos') || matches(pattern, 'iphoneos99.9');
  if (kind === 'arch') return matches(pattern, 'arm64');
  return kind === 'variant' ? matches(pattern, 'normal') : false;
}

function matches(pattern: string, text: string): boolean {
  return globMatcher(pattern, { folders: false })(text);
}
