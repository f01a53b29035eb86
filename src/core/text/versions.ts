/** A version taken apart: its numbers, and what marks it as coming before the release of these numbers. */
interface Version {
  numbers: number[];
  /** In lower case; empty for a release. */
  preRelease: string[];
}

/** Words after the numbers that do not mark a pre-release: `f` and `p` are from Unity editors, `x` stands for any number. */
const neutralWords = new Set(['final', 'ga', 'release', 'sp', 'f', 'p', 'x']);

/**
 * Compares two versions: below zero when the first is older. Missing numbers count as zero, a pre-release is older than its
 * release (`6.2.0-beta1` than `6.2.0`), and build metadata after `+` is ignored. npm, pub, NuGet, Gradle and RubyGems share
 * this order (semver.org, "Precedence"; docs.gradle.org, "Version ordering"). Where they differ, Gradle decides: letters and
 * digits are compared separately, so `beta10` is newer than `beta9`, and a number after a hyphen (`6.2.0-1`) is a later
 * revision of the release.
 */
export function compareVersions(a: string, b: string): number {
  const [left, right] = [parsed(a), parsed(b)];
  for (let i = 0; i < Math.max(left.numbers.length, right.numbers.length); i++) {
    const difference = (left.numbers[i] ?? 0) - (right.numbers[i] ?? 0);
    if (difference !== 0) return difference;
  }
  if (left.preRelease.length === 0 || right.preRelease.length === 0)
    return right.preRelease.length - left.preRelease.length;
  return comparePreReleases(left.preRelease, right.preRelease);
}

/** The version that a range begins with, such as `6.2.0-beta1` of `^6.2.0-beta1`; undefined where it names none. */
export function floorOf(range: string): string | undefined {
  return /\d+(?:\.\d+)*(?:[.-](?!x\b)[a-z][\w.-]*)?/i.exec(range)?.[0];
}

/** A version shortened to as many numbers as another has; whole when the other has no fewer. */
export function shortenedTo(version: string, other: string): string {
  const [all, wanted] = [parsed(version).numbers, parsed(other).numbers.length];
  return wanted < all.length ? all.slice(0, wanted).join('.') : version;
}

function parsed(version: string): Version {
  const [, numbers = '0', rest = ''] = /^\D*(\d+(?:\.\d+)*)([^+]*)/.exec(version) ?? [];
  const parts = rest.toLowerCase().match(/\d+|[a-z]+/g) ?? [];
  if (neutralWords.has(parts[0] ?? '')) parts.shift();
  const later = parts.findIndex((part) => !isNumber(part));
  const revision = parts.splice(0, later === -1 ? parts.length : later);
  return { numbers: [...numbers.split('.'), ...revision].map(Number), preRelease: parts };
}

function comparePreReleases(a: readonly string[], b: readonly string[]): number {
  for (let i = 0; i < Math.max(a.length, b.length); i++) {
    const [left, right] = [a[i], b[i]];
    if (left === right) continue;
    if (left === undefined || right === undefined) return a.length - b.length;
    if (isNumber(left) && isNumber(right)) {
      if (Number(left) !== Number(right)) return Number(left) - Number(right);
    } else if (isNumber(left) !== isNumber(right)) return isNumber(left) ? -1 : 1;
    else return left < right ? -1 : 1;
  }
  return 0;
}

function isNumber(part: string): boolean {
  return /^\d/.test(part);
}
