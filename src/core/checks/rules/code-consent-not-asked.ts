import { languageOf } from '../../languages/index.js';
import { callsOf, oncePerPlace } from '../code.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';

/** Ads of a network are loaded, but the user is never asked for the consent that it requires. */
export const consentNotAsked = defineRule({
  meta: {
    id: 'code/consent-not-asked',
    severity: 'blocker',
    ifShipped:
      'The network refuses the requests, or serves ads that it must not: accounts are closed for it.',
    mend: 'Ask for consent before the first request: {example}',
    messages: {
      never:
        '{network} needs the user’s consent before anything is requested, and no code calls {ask}: {why}',
    },
    isAbsence: true,
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      for (const profile of scope.networks) {
        if (callsOf(scope, profile.id, 'consent').length > 0) continue;
        const [load] = oncePerPlace(callsOf(scope, profile.id, 'load', 'view'));
        const language = load && languageOf(load.place.path)?.id;
        const consent = language && profile.code[language]?.consent;
        if (!load || !consent) continue;
        const { call: ask, example, why } = consent;
        yield { ...fromFact(load), message: 'never', data: { network: profile.name, ask, why, example } };
      }
    }
  },
});
