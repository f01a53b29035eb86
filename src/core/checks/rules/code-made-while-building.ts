import type { Fact } from '../../survey/model.js';
import { callsOf, oncePerPlace } from '../code.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';

/** Functions that draw one part of the interface, by the name under which they are handed over. */
const partBuilders = /^(item|separator|tab|page)?[bB]uilder$/;

/** An ad is asked for in the function that draws the interface, which runs again and again. */
export const madeWhileBuilding = defineRule({
  meta: {
    id: 'code/made-while-building',
    severity: 'warning',
    ifShipped:
      'Every redraw asks for another ad and drops the last: requests without impressions, and memory that fills.',
    mend: 'Load it once where the screen begins its life (initState), keep it, and draw what is kept.',
    messages: {
      drawn: '{call} of {network} runs each time {where} draws.',
      row: '{call} of {network} runs for each row of {where} that scrolls into view, and again when it comes back.',
    },
    needsTitle: true,
  },
  *run(context) {
    const calls = editionScopes(context).flatMap((scope) =>
      scope.networks.flatMap((profile) =>
        callsOf(scope, profile.id, /^load /).flatMap((call) => {
          const message = whileDrawing(call);
          return message ? [{ call, profile, message, place: call.place }] : [];
        }),
      ),
    );
    for (const { call, profile, message } of oncePerPlace(calls)) {
      const where = call.code?.type ?? 'the screen';
      const data = { call: call.value, network: profile.name, where };
      yield { ...fromFact(call), platform: null, module: null, variants: [], message, data };
    }
  },
});

function whileDrawing({ place, code }: Fact): 'drawn' | 'row' | undefined {
  if (!place.path.endsWith('.dart') || !code?.methods.includes('build')) return undefined;
  const innermost = code.methods.at(-1) ?? '';
  return innermost === 'build' ? 'drawn' : partBuilders.test(innermost) ? 'row' : undefined;
}
