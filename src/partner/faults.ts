import * as z from 'zod';

export const faultKinds = ['error', 'timeout', 'cut', 'html', 'empty', 'loop', 'shift', 'odd-ids'] as const;
export type FaultKind = (typeof faultKinds)[number];

/** Fault injection: every nth response of a network's interface gets one of these faults. */
export const FaultPlan = z.object({
  network: z.string(),
  kinds: z.array(z.enum(faultKinds)).max(faultKinds.length),
  every: z.number().int().min(1).max(1000).default(3),
  times: z.number().int().min(0).max(100_000).default(100_000),
  method: z.enum(['GET', 'POST', 'any']).default('any'),
});
export type FaultPlan = z.infer<typeof FaultPlan>;

/** Decides which call meets which fault. The order repeats: no chance is in it. */
export class Faults {
  readonly #plans = new Map<string, { plan: FaultPlan; calls: number; met: number }>();

  set(plan: FaultPlan): void {
    if (plan.kinds.length === 0) this.#plans.delete(plan.network);
    else this.#plans.set(plan.network, { plan, calls: 0, met: 0 });
  }

  /** The fault of the next call; undefined when all goes well. */
  next(network: string, method: string): FaultKind | undefined {
    const state = this.#plans.get(network);
    if (!state || (state.plan.method !== 'any' && state.plan.method !== method)) return undefined;
    state.calls++;
    if (state.calls % state.plan.every !== 0 || state.met >= state.plan.times) return undefined;
    return state.plan.kinds[state.met++ % state.plan.kinds.length];
  }
}
