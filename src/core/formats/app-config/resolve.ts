import { reachedUnder, type ConditionTerms } from '../../syntax/conditions.js';
import type { Span } from '../../text/problem.js';
import type { ConfigNode } from './model.js';

/** A value as a build would see it, with the file and the place that give it. */
export type ConfigValue = Span & {
  path: string;
  /** The variable that it came from, where it came from one. */
  variable?: string;
} & (
    | { is: 'text'; value: string }
    | { is: 'plain'; value: number | boolean | null }
    | { is: 'list'; items: ConfigValue[] }
    | { is: 'object'; entries: Map<string, ConfigValue> }
    /** What reading cannot settle, with the reason. */
    | { is: 'open'; reason: string }
  );

/** What a configuration is computed with. */
export interface ConfigSetting {
  /** The file of the configuration. */
  path: string;
  /** What a variable is set to; undefined where it is not set, null where that cannot be determined. */
  variable: (name: string) => string | undefined | null;
  /** The static configuration that a script is given. */
  given?: ConfigValue | undefined;
}

/** Works a configuration out. What depends on something unknown is open, and the rest is given all the same. */
export function resolveConfig(node: ConfigNode, setting: ConfigSetting): ConfigValue {
  const { path, variable, given } = setting;
  const span = { path, start: node.start, end: node.end };
  const inner = (one: ConfigNode) => resolveConfig(one, setting);
  switch (node.is) {
    case 'text':
      return { is: 'text', value: node.value, ...span };
    case 'plain':
      return { is: 'plain', value: node.value, ...span };
    case 'open':
      return { is: 'open', reason: `it is computed when the configuration runs: ${node.written}`, ...span };
    case 'spread':
      return inner(node.of);
    case 'given':
      return (given && valueAt(given, node.way)) ?? { is: 'plain', value: null, ...span };
    case 'list':
      return {
        is: 'list',
        items: node.items.flatMap((item) => {
          if (item.is !== 'spread') return [inner(item)];
          const spread = inner(item.of);
          return spread.is === 'list' ? spread.items : spread.is === 'open' ? [spread] : [];
        }),
        ...span,
      };
    case 'object': {
      const entries = new Map<string, ConfigValue>();
      for (const { key, value } of node.entries) {
        const held = inner(value);
        if (value.is !== 'spread') entries.set(key, held);
        else if (held.is === 'object') for (const [name, one] of held.entries) entries.set(name, one);
      }
      return { is: 'object', entries, ...span };
    }
    case 'variable': {
      const value = variable(node.name);
      if (value === undefined && node.otherwise) return inner(node.otherwise);
      if (typeof value === 'string') return { is: 'text', value, variable: node.name, ...span };
      const why = value === null ? 'is set where no reading sees it' : 'is set by no build profile';
      return { is: 'open', reason: `the variable ${node.name} ${why}`, ...span };
    }
    case 'choice': {
      const terms = termsFor(variable);
      const holds = reachedUnder(node.condition, terms);
      const fails = reachedUnder(`!(${node.condition})`, terms);
      if (holds === 'yes' && fails === 'no') return inner(node.then);
      if (holds === 'no' && fails === 'yes') return inner(node.otherwise);
      return { is: 'open', reason: `it depends on ${node.condition}`, ...span };
    }
  }
}

function termsFor(variable: ConfigSetting['variable']): ConditionTerms {
  const valueOf = (name: string) => {
    const asked = /^process\.env\.(\w+)$/.exec(name)?.[1];
    return asked === undefined ? null : variable(asked);
  };
  return {
    name(name) {
      const value = valueOf(name);
      return value === null ? 'unknown' : value === undefined || value === '' ? 'no' : 'yes';
    },
    equals(left, right) {
      const text = /^(['"])(.*)\1$/.exec(right)?.[2];
      const value = valueOf(left);
      if (value === null || (text === undefined && right !== 'undefined')) return 'unknown';
      return value === text ? 'yes' : 'no';
    },
  };
}

/** The value that a way of keys leads to; undefined where there is none. */
export function valueAt(value: ConfigValue | undefined, way: readonly string[]): ConfigValue | undefined {
  let at = value;
  for (const step of way) at = at?.is === 'object' ? at.entries.get(step) : undefined;
  return at;
}

/** Every part of a value that reading cannot settle. */
export function openParts(value: ConfigValue): (ConfigValue & { is: 'open' })[] {
  if (value.is === 'open') return [value];
  if (value.is === 'list') return value.items.flatMap(openParts);
  return value.is === 'object' ? [...value.entries.values()].flatMap(openParts) : [];
}
