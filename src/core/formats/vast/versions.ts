/** The versions of VAST that are read, oldest first. */
export const vastVersions = ['2.0', '3.0', '4.0', '4.1', '4.2', '4.3'] as const;
export type VastVersion = (typeof vastVersions)[number];

/** The version that a `version` attribute names; `2.0.1` and `4` are taken as what they begin with. */
export function versionOf(text: string): VastVersion | undefined {
  const found = /^(\d)(?:\.(\d))?(?:\.\d+)?$/.exec(text.trim());
  const wanted = found && `${found[1]}.${found[2] ?? '0'}`;
  return vastVersions.find((version) => version === wanted);
}

/** Whether a version is at least another one. */
export const isAtLeast = (version: VastVersion, since: VastVersion): boolean =>
  vastVersions.indexOf(version) >= vastVersions.indexOf(since);
