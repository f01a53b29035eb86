import type { Node } from '../syntax/grammars.js';
import { named, type Shape } from '../syntax/shape.js';

export type CallShape = Shape & { is: 'call' };

/** Chains of calls are followed so far. */
const maxChain = 20;

/** Names calls of what other calls give: `Loader.Builder(…).unit(…)` is `Loader.Builder.unit`. */
export class CallChains {
  constructor(private readonly describe: (node: Node) => Shape | null) {}

  nameOf({ name, rest }: CallShape): string {
    const before = name.startsWith('?.') ? this.innerCall(rest[0]) : undefined;
    const type = before && this.madeAlong(before, 0);
    return type === undefined ? name : `${type}${name.slice(1)}`;
  }

  /** The type that a chain begins with: builders give themselves back, and at last what they build. */
  private madeAlong({ name, rest }: CallShape, depth: number): string | undefined {
    if (!name.startsWith('?.')) {
      const made = name.replace(/\.(alloc|new)$/, '');
      return made !== name || /(^|\.)[A-Z]\w*$/.test(name) ? made : undefined;
    }
    const before = depth < maxChain ? this.innerCall(rest[0]) : undefined;
    const type = before && this.madeAlong(before, depth + 1);
    return type === undefined ? undefined : (builtBy(`${type}${name.slice(1)}`) ?? type);
  }

  /** The call at the beginning of an expression. */
  private innerCall(node: Node | undefined): CallShape | undefined {
    let at: Node | undefined = node;
    for (let step = 0; at && step < 6; step++) {
      const shape = this.describe(at);
      if (shape?.is === 'call') return shape;
      at = shape?.is === 'same' ? shape.node : (named(at)[0] ?? undefined);
    }
    return undefined;
  }
}

/** `Loader.Builder.build` and `LoaderBuilder.Build` make a `Loader`. */
export function builtBy(name: string): string | undefined {
  return /^(.*[A-Za-z0-9_])\.?Builder\.(?:build|Build|create|Create)$/.exec(name)?.[1];
}

/** The result of `HeronBanner.load(…)` counts as a `HeronBanner`. */
export function madeBy(name: string): string {
  return builtBy(name) ?? /^((?:\w+\.)*[A-Z]\w*)(?:\.[a-z_]\w*)+$/.exec(name)?.[1] ?? name;
}
