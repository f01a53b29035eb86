import type { CheckContext } from '../../checks/model.js';
import { editionScopes, type EditionScope } from '../../checks/scope.js';
import type { Variant } from '../../facts/model.js';
import type { Platform } from '../../words/words.js';
import { screenName } from './calls.js';
import type { App, AppSlot } from './model.js';
import { appNetwork, identifierOf, launchScreens } from './networks.js';
import { slotsOf } from './slots.js';

/** Which variants and placements are rehearsed; everything that is left out. */
export interface RehearsalChoice {
  variants?: readonly string[] | undefined;
  platforms?: readonly Platform[] | undefined;
  placements?: readonly string[] | undefined;
}

/** The variants of a title's editions in a tree, as a rehearsal lives through them; those without a stage are left out. */
export function appsOf(context: CheckContext, choice: RehearsalChoice = {}): App[] {
  return editionScopes(context)
    .filter(({ platform }) => choice.platforms?.includes(platform) ?? true)
    .flatMap((scope) =>
      scope.edition.variants
        .filter(({ name }) => choice.variants?.includes(name) ?? true)
        .flatMap((variant) => appOf(context, scope, variant, choice) ?? []),
    );
}

function appOf(
  context: CheckContext,
  scope: EditionScope,
  { name: variant, stage }: Variant,
  { placements }: RehearsalChoice,
): App | undefined {
  if (!stage) return undefined;
  const { title, platform, edition } = scope;
  const launches = launchScreens(scope);
  const slots = Object.entries(title.placements)
    .filter(([name]) => placements?.includes(name) ?? true)
    .flatMap(([name, placement]) => slotsOf({ scope, variant, stage, launches }, name, placement));
  return {
    title: context.titleId ?? title.name,
    platform,
    module: edition.module,
    variant,
    stage,
    identifier: identifierOf(scope, variant),
    recreatesOnTurn: edition.stack === 'native-android',
    networks: scope.networks.map((profile) => appNetwork(context, scope, profile, variant)),
    screens: screensOf(slots),
    slots,
  };
}

/** The screens that a user opens to see ads, in the order of placements. */
function screensOf(slots: readonly AppSlot[]): App['screens'] {
  const found = new Map<string, { id: string; name: string }>();
  for (const { load, show } of slots)
    for (const call of [load, show])
      if (call && !call.isOfApp && !found.has(call.screen))
        found.set(call.screen, { id: call.screen, name: screenName(call.screen) });
  return [...found.values()];
}
