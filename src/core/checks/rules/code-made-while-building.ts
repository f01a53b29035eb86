import type { Fact } from '../../facts/model.js';
import { callsOf, oncePerPlace } from '../code.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';

/** How the functions that draw are called in a language: a screen, and one part of it, such as a row. */
const drawing: readonly { files: RegExp; screen: RegExp; part: RegExp }[] = [
  { files: /\.dart$/, screen: /^build$/, part: /^(item|separator|tab|page)?[bB]uilder$/ },
  { files: /\.cs$/, screen: /^(?:(?:Late|Fixed)?Update|OnGUI|OnDraw)$/, part: /^OnBindingContextChanged$/ },
  { files: /\.xaml$/, screen: /^(?!DataTemplate$)/, part: /^DataTemplate$/ },
  { files: /\.(?:[jt]sx|js)$/, screen: /^(?:[A-Z]\w*|render)$/, part: /^(?:render[A-Z]\w*|\w+Component)$/ },
];

/** An ad is requested in the function that draws the interface, which runs many times. */
export const madeWhileBuilding = defineRule({
  meta: {
    id: 'code/made-while-building',
    severity: 'warning',
    ifShipped:
      'Every redraw requests another ad and drops the last one: requests without impressions, and growing memory.',
    mend: 'Load it once when the screen is created (initState, an effect that runs once, Start), keep it, and draw what was kept.',
    messages: {
      drawn: '{call} of {network} runs each time {where} draws.',
      row: '{call} of {network} runs for each row of {where} that scrolls into view, and again when the row returns.',
    },
    needsTitle: true,
  },
  *run(context) {
    const calls = editionScopes(context).flatMap((scope) =>
      scope.networks.flatMap((profile) =>
        callsOf(scope, profile.id, 'load', 'view', 'start').flatMap((call) => {
          const message = whileDrawing(call);
          // A view is meant to be drawn repeatedly, and loads again only if it is created for each row.
          const isDue = message === 'row' || call.action !== 'view';
          return message && isDue ? [{ call, profile, message, place: call.place }] : [];
        }),
      ),
    );
    for (const { call, profile, message } of oncePerPlace(calls)) {
      const where = call.code?.type ?? call.code?.methods[0] ?? 'the screen';
      const data = { call: call.value, network: profile.name, where };
      yield { ...fromFact(call), platform: null, module: null, variants: [], message, data };
    }
  },
});

function whileDrawing({ place, code }: Fact): 'drawn' | 'row' | undefined {
  const names = drawing.find(({ files }) => files.test(place.path));
  if (!names || !code?.methods.some((name) => names.screen.test(name))) return undefined;
  const innermost = code.methods.at(-1) ?? '';
  return names.screen.test(innermost) ? 'drawn' : names.part.test(innermost) ? 'row' : undefined;
}
