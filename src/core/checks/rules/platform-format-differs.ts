import { defineRule } from '../model.js';
import { callsOf, placementsOf } from '../code.js';
import { editionScopes, fromFact, listed } from '../scope.js';

/** One placement is loaded with different formats on the two platforms. */
export const formatDiffers = defineRule({
  meta: {
    id: 'platform/format-differs',
    severity: 'warning',
    ifShipped: 'The placement shows different ads on each platform, and its figures mean nothing.',
    mend: 'Load it with the format in the roster.',
    messages: {
      differ: '{placement} is loaded as {here} here, but as {there} on {other.label}.',
    },
    needsTitle: true,
  },
  *run(context) {
    const scopes = editionScopes(context);
    const loaded = scopes.flatMap((scope) =>
      scope.networks.flatMap(({ id }) =>
        callsOf(scope, id, 'load', 'view', 'identify').flatMap((call) =>
          placementsOf(call, scope.title).map((placement) => ({
            scope,
            call,
            placement,
            format: call.format ?? '',
          })),
        ),
      ),
    );
    for (const placement of new Set(loaded.map((item) => item.placement))) {
      const mine = loaded.filter((item) => item.placement === placement);
      const of = (platform: string) => [
        ...new Set(mine.filter(({ scope }) => scope.platform === platform).map(({ format }) => format)),
      ];
      const [android, ios] = [of('android'), of('ios')];
      const first = mine.find(({ scope }) => scope.platform === 'ios');
      if (!first || android.length === 0 || ios.some((format) => android.includes(format))) continue;
      const data = { placement, here: listed(ios), there: listed(android), other: 'android' };
      yield { ...fromFact(first.call), placement, message: 'differ', data };
    }
  },
});
