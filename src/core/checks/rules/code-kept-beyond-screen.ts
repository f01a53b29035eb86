import { groupBy } from '../../text/group-by.js';
import type { FactOf } from '../../facts/model.js';
import { callsOf, oncePerPlace } from '../code.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';

/** What runs when a screen closes, however it is left. */
const leaving: readonly { files: RegExp; names: RegExp; called: string }[] = [
  { files: /\.dart$/, names: /^dispose$/, called: 'dispose' },
  {
    files: /\.cs$/,
    names: /^(?:OnDestroy|OnDisable|OnDisappearing|OnNavigatedFrom|OnUnloaded|Dispose|Dispose\w+)$/,
    called: 'what runs when it goes away (OnDestroy, OnDisappearing)',
  },
  {
    files: /\.(?:[jt]sx?)$/,
    names: /^(?:cleanup|componentWillUnmount)$/,
    called: 'what its effect gives back',
  },
];

/** What a call is of: its format, on the screen that makes it. */
function screenOf({ format, place, code }: FactOf<'call'>): string {
  return JSON.stringify([format, place.path, code?.type ?? code?.methods[0]]);
}

/** A screen releases an ad somewhere, but not when it closes. */
export const keptBeyondScreen = defineRule({
  meta: {
    id: 'code/kept-beyond-screen',
    severity: 'warning',
    ifShipped: 'Each visit to the screen leaves an ad in memory, until memory runs out.',
    mend: 'Release it when the screen is disposed of (dispose, the clean-up of an effect), which runs however the user leaves.',
    messages: {
      kept: '{type} loads an ad of {network} and releases it only in {where}, not in {leaving}.',
    },
    needsTitle: true,
  },
  *run(context) {
    const found = editionScopes(context).flatMap((scope) =>
      scope.networks.flatMap((profile) => {
        const released = groupBy(callsOf(scope, profile.id, 'release'), screenOf);
        return callsOf(scope, profile.id, 'load').flatMap((load) => {
          const end = leaving.find(({ files }) => files.test(load.place.path));
          const type = load.code?.type ?? load.code?.methods[0];
          if (!end || !type) return [];
          const releases = released.get(screenOf(load)) ?? [];
          const [first] = releases;
          if (!first || releases.some(({ code }) => code?.methods.some((name) => end.names.test(name))))
            return [];
          const where = first.code?.methods.at(-1) ?? type;
          return [{ load, profile, type, where, leaving: end.called, place: load.place }];
        });
      }),
    );
    for (const { load, profile, type, where, leaving: end } of oncePerPlace(found)) {
      const data = { type, network: profile.name, where, leaving: end };
      yield { ...fromFact(load), platform: null, module: null, variants: [], message: 'kept', data };
    }
  },
});
