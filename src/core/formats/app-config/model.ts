import type { Span } from '../../text/problem.js';

/** A value of a configuration, with the place where it is; what only running it could tell stays open. */
export type ConfigNode = Span &
  (
    | { is: 'text'; value: string }
    | { is: 'plain'; value: number | boolean | null }
    | { is: 'list'; items: ConfigNode[] }
    | { is: 'object'; entries: ConfigEntry[] }
    /** One of two values. */
    | { is: 'choice'; condition: ConfigNode; then: ConfigNode; otherwise: ConfigNode }
    /** The value of an environment variable. */
    | { is: 'variable'; name: string }
    /** The static configuration. */
    | { is: 'given' }
    | { is: 'member'; of: ConfigNode; key: ConfigNode }
    /** Texts put together. */
    | { is: 'joined'; parts: ConfigNode[] }
    | { is: 'compared'; sign: '===' | '!=='; left: ConfigNode; right: ConfigNode }
    | { is: 'not'; of: ConfigNode }
    /** The first of two values, or the second where the sign says so. */
    | { is: 'either'; sign: '??' | '||' | '&&'; left: ConfigNode; right: ConfigNode }
    /** What a method of a text or list gives back: `includes`, `startsWith`, `toLowerCase`… */
    | { is: 'asked'; method: string; of: ConfigNode; args: ConfigNode[] }
    /** An object in which the value at a way of keys was set afterwards. */
    | { is: 'with'; of: ConfigNode; way: string[]; value: ConfigNode }
    /** Everything that an inner value holds, laid out in the list or object around it. */
    | { is: 'spread'; of: ConfigNode }
    | { is: 'open'; written: string }
  );

export interface ConfigEntry extends Span {
  /** Empty for a spread. */
  key: string;
  value: ConfigNode;
}
