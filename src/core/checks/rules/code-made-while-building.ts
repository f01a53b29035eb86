import { callsOf, oncePerPlace } from '../code.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';

/** An ad is asked for in the function that draws the interface, which runs again and again. */
export const madeWhileBuilding = defineRule({
  meta: {
    id: 'code/made-while-building',
    severity: 'warning',
    ifShipped:
      'Every redraw asks for another ad and drops the last: requests without impressions, and memory that fills.',
    mend: 'Load it once where the screen begins its life (initState), keep it, and draw what is kept.',
    messages: { drawn: '{call} of {network} runs each time {where} draws.' },
    needsTitle: true,
  },
  *run(context) {
    const calls = editionScopes(context).flatMap((scope) =>
      scope.networks.flatMap((profile) =>
        callsOf(scope, profile.id, /^load /)
          .filter((call) => call.place.path.endsWith('.dart') && call.code?.methods.at(-1) === 'build')
          .map((call) => ({ call, profile, place: call.place })),
      ),
    );
    for (const { call, profile } of oncePerPlace(calls)) {
      const where = call.code?.type ?? 'the screen';
      const data = { call: call.value, network: profile.name, where };
      yield { ...fromFact(call), platform: null, module: null, variants: [], message: 'drawn', data };
    }
  },
});
