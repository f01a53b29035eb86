import { desugarLibrary } from '../../network/wanted.js';
import { isOlder } from '../versions.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact, listed } from '../scope.js';

/** An SDK needs core library desugaring, and the module does not have it. */
export const desugaringMissing = defineRule({
  meta: {
    id: 'build/desugaring-missing',
    severity: 'blocker',
    ifShipped: 'The build stops, or the app crashes on older devices where the SDK calls what they lack.',
    mend: 'Switch core library desugaring on in compileOptions, and add com.android.tools:desugar_jdk_libs as coreLibraryDesugaring.',
    byWiring: 'Run syndexa wire: it switches it on and adds the library.',
    otherMends: { older: 'Raise the version of the library.' },
    messages: {
      off: '{network} needs core library desugaring, which is not switched on for {variants}: {why}',
      library:
        '{network} needs core library desugaring, but {library} is not a dependency of {variants}: {why}',
      older: '{network} needs {library} {needed} or newer, but this build has {value}: {why}',
    },
    isAbsence: true,
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      const { platform, edition } = scope;
      for (const profile of scope.networks) {
        const need = profile.android?.desugaring;
        if (!need || platform !== 'android') continue;
        const held = scope.facts.filter((fact) => fact.kind === 'desugaring');
        const library = desugarLibrary;
        const without = (has: (fact: (typeof held)[number]) => boolean) =>
          edition.variants
            .map(({ name }) => name)
            .filter((name) => !held.some((fact) => has(fact) && fact.variants.includes(name)));
        const place = edition.dependencies ?? edition.home;
        const base = { platform, module: edition.module, network: profile.id, place };
        const data = { network: profile.name, library, why: need.why };
        const off = without(({ name, value }) => name === 'switch' && value === 'true');
        if (off.length > 0)
          yield { ...base, variants: off, message: 'off', data: { ...data, variants: listed(off) } };
        const lacking = without(({ name }) => name === library);
        if (lacking.length > 0)
          yield {
            ...base,
            variants: lacking,
            message: 'library',
            data: { ...data, variants: listed(lacking) },
          };
        for (const fact of held) {
          if (fact.name !== library || fact.value === '' || !isOlder(fact.value, need.version)) continue;
          const more = { ...data, needed: need.version, value: fact.value };
          yield { ...fromFact(fact), network: profile.id, message: 'older', mend: 'older', data: more };
        }
      }
    }
  },
});
