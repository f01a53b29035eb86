import type { FactOf } from '../facts/model.js';
import type { TraceEvent } from '../facts/trace.js';
import type { Profile } from '../network/model.js';
import { groupBy } from '../text/group-by.js';
import type { CheckContext, Report } from './model.js';
import { editionScopes } from './scope.js';

export type Rehearsed = FactOf<'rehearsed'>;

/** What a rehearsal saw of a placement in one variant: one fact per network, in the order of fallback. */
export interface SeenPlacement {
  facts: readonly [Rehearsed, ...Rehearsed[]];
  /** The events of all networks, in their order. */
  events: readonly TraceEvent[];
}

/** What a rehearsal saw; nothing where there was none. */
export function rehearsedPlacements(context: CheckContext): SeenPlacement[] {
  return editionScopes(context).flatMap((scope) => {
    const all = scope.facts.filter((fact): fact is Rehearsed => fact.kind === 'rehearsed');
    return [
      ...groupBy(all, ({ placement, variants }) => JSON.stringify([placement, variants])).values(),
    ].flatMap((facts): SeenPlacement[] => {
      const [first, ...others] = facts;
      if (!first) return [];
      const events = facts.flatMap((fact) => fact.events).sort((a, b) => a.at - b.at);
      return [{ facts: [first, ...others], events }];
    });
  });
}

/** What a rehearsal saw of each placement on each network, with the profile. */
export function rehearsedOnNetworks(context: CheckContext): { fact: Rehearsed; profile: Profile }[] {
  return editionScopes(context).flatMap(({ facts, networks }) =>
    facts.flatMap((fact) => {
      const profile = networks.find(({ id }) => id === fact.network);
      return fact.kind === 'rehearsed' && profile ? [{ fact, profile }] : [];
    }),
  );
}

/** The name of the placement that was rehearsed. */
export function nameOf({ placement = '' }: Rehearsed): string {
  return placement;
}

/** What a report takes over from what was rehearsed; a placement without code has no place. */
export function fromRehearsed({
  platform,
  module,
  variants,
  network,
  placement,
  place,
}: Rehearsed): Omit<Report, 'message'> {
  return {
    platform,
    module,
    variants,
    network,
    placement: placement ?? null,
    place: place.path === '' ? null : place,
  };
}

/** A time in a session, for people: `1.2 s`, `3 min 5 s`. */
export function timeIn(ms: number): string {
  if (ms < 60_000) return `${(ms / 1_000).toFixed(1)} s`;
  const seconds = Math.round(ms / 1_000);
  const rest = seconds % 60;
  return `${Math.floor(seconds / 60)} min${rest === 0 ? '' : ` ${rest} s`}`;
}
