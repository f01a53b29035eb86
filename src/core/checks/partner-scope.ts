import type { InventoryApp, InventoryReading, InventoryUnit } from '../inventory/model.js';
import type { Profile } from '../network/model.js';
import type { ExpectedId } from '../roster/expected.js';
import type { CheckContext, Report } from './model.js';
import { editionScopes, type EditionScope } from './scope.js';

/** An ID of the roster, and what its network's list, as last read, says of it. */
export interface PartnerView<Item> {
  scope: EditionScope;
  profile: Profile;
  inventory: InventoryReading;
  expected: ExpectedId & { id: string };
  /** Undefined when the network does not know the ID, or has removed it. */
  item: Item | undefined;
}

/** The unit IDs of the roster's own, where their network's list was read. */
export function* partnerUnits(context: CheckContext): Iterable<PartnerView<InventoryUnit>> {
  for (const view of views(context, 'unit')) {
    const found = view.inventory.units.find(({ id }) => id === view.expected.id);
    yield { ...view, item: found?.status === 'removed' ? undefined : found };
  }
}

/** The app IDs of the roster's own, where their network's list of apps was read. */
export function* partnerApps(context: CheckContext): Iterable<PartnerView<InventoryApp>> {
  for (const view of views(context, 'app'))
    if (view.inventory.apps.length > 0)
      yield { ...view, item: view.inventory.apps.find(({ id }) => id === view.expected.id) };
}

function* views(context: CheckContext, kind: ExpectedId['kind']): Iterable<PartnerView<never>> {
  for (const scope of editionScopes(context)) {
    for (const expected of scope.expected) {
      const { id, from, network } = expected;
      if (expected.kind !== kind || from !== 'roster' || id === undefined) continue;
      const inventory = context.inventories.find((reading) => reading.network === network);
      const profile = scope.networks.find((candidate) => candidate.id === network);
      if (inventory && profile)
        yield { scope, profile, inventory, expected: { ...expected, id }, item: undefined };
    }
  }
}

/** What a report takes over from a view. */
export function fromView({
  scope,
  expected,
}: PartnerView<unknown>): Pick<Report, 'platform' | 'module' | 'variants' | 'network' | 'placement'> {
  return {
    platform: scope.platform,
    module: scope.edition.module,
    variants: scope.edition.variants.filter(({ stage }) => stage === expected.stage).map(({ name }) => name),
    network: expected.network,
    placement: expected.placement ?? null,
  };
}
