import { defineRule } from '../model.js';
import { callsOf, languagesFor } from '../code.js';
import { editionScopes, listed } from '../scope.js';

/** An enrolled network's SDK is in the build and is never started. */
export const neverStarted = defineRule({
  meta: {
    id: 'code/never-started',
    severity: 'blocker',
    ifShipped: 'Nothing is ever loaded: every placement of the network stays empty.',
    mend: 'Call the start-up where the network requires it. syndexa steps shows the line.',
    messages: {
      never: '{network} is in the build of {variants}, but nothing calls {call}.',
    },
    isAbsence: true,
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      const { platform, edition } = scope;
      for (const profile of scope.networks) {
        const languages = languagesFor(profile, platform);
        const used = scope.facts.filter(
          (fact) =>
            fact.network === profile.id &&
            (fact.kind === 'dependency' ||
              fact.kind === 'binary' ||
              (fact.kind === 'call' && fact.action !== 'start')),
        );
        const inBuild = new Set(used.flatMap(({ variants }) => variants));
        const started = new Set(callsOf(scope, profile.id, 'start').flatMap(({ variants }) => variants));
        const variants = edition.variants
          .map(({ name }) => name)
          .filter((name) => inBuild.has(name) && !started.has(name));
        const [first] = used;
        if (languages.length === 0 || variants.length === 0 || !first) continue;
        const data = {
          network: profile.name,
          variants: listed(variants),
          call: languages[0]?.start.call ?? '',
        };
        yield {
          platform,
          module: edition.module,
          variants,
          network: profile.id,
          place: first.place,
          message: 'never',
          data,
        };
      }
    }
  },
});
