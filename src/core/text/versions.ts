/** Compares two versions part by part: below zero when the first is older. Missing parts count as zero. */
export function compareVersions(a: string, b: string): number {
  const [left, right] = [a, b].map((version) => version.split(/[.-]/).map((part) => parseInt(part, 10) || 0));
  for (let i = 0; i < Math.max(left?.length ?? 0, right?.length ?? 0); i++) {
    const difference = (left?.[i] ?? 0) - (right?.[i] ?? 0);
    if (difference !== 0) return difference;
  }
  return 0;
}
