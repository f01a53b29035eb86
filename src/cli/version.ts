import packageJson from '../../package.json' with { type: 'json' };

/** The version of this program. */
export const version: string = packageJson.version;
