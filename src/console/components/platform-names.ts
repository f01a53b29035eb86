/** Platforms as people name them. */
export const platformNames = { android: 'Android', ios: 'iOS' } as const;
export type PlatformName = keyof typeof platformNames;
