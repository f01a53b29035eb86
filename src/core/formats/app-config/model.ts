import type { Span } from '../../text/problem.js';

/** A value of a configuration, with the place where it is; what is computed stays open. */
export type ConfigNode = Span &
  (
    | { is: 'text'; value: string }
    | { is: 'plain'; value: number | boolean | null }
    | { is: 'list'; items: ConfigNode[] }
    | { is: 'object'; entries: ConfigEntry[] }
    /** One of two values, by a condition that the surroundings decide. */
    | { is: 'choice'; condition: string; then: ConfigNode; otherwise: ConfigNode }
    /** The value of an environment variable, or its default where it is not set. */
    | { is: 'variable'; name: string; otherwise: ConfigNode | null }
    /** What the static configuration says at a way of keys; the whole of it for none. */
    | { is: 'given'; way: string[] }
    /** Everything that an inner value holds, laid out in the list or object around it. */
    | { is: 'spread'; of: ConfigNode }
    | { is: 'open'; written: string }
  );

export interface ConfigEntry extends Span {
  /** Empty for a spread. */
  key: string;
  value: ConfigNode;
}
