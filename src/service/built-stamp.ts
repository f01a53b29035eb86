declare const BUILT_STAMP: string | undefined;

/** Tells one build from another by the sources that it was made of; null when run from the sources. */
export const builtStamp = typeof BUILT_STAMP === 'string' ? BUILT_STAMP : null;
