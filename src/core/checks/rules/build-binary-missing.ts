import { isWhereBuildLooks } from '../../facts/effective.js';
import { defineRule } from '../model.js';
import { editionScopes, fromFact, listed } from '../scope.js';

/** A library that is handed out as a file is not taken in, or named and not there. */
export const binaryMissing = defineRule({
  meta: {
    id: 'build/binary-missing',
    severity: 'blocker',
    ifShipped: 'The build stops, or the code that names the library does not compile.',
    mend: 'Get the file from the network’s pages, put it where the build takes libraries in (libs with a line in the dependencies; Assets/Plugins/Android in Unity).',
    messages: {
      unnamed: '{network} provides {file}, but no dependency of {variants} includes it.',
      absent: '{network} provides {file}, but {path}, which the build names, does not exist.',
    },
    isAbsence: true,
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      const { platform, edition } = scope;
      if (platform !== 'android') continue;
      for (const profile of scope.networks) {
        for (const { file } of profile.android?.binaries ?? []) {
          const named = scope.facts.filter(({ kind, name }) => kind === 'binary' && name === file);
          for (const fact of named.filter((fact) => !isWhereBuildLooks(fact)))
            yield {
              ...fromFact(fact),
              message: 'absent',
              data: { network: profile.name, file, path: fact.value },
            };
          const variants = edition.variants
            .map(({ name }) => name)
            .filter((name) => !named.some((fact) => fact.variants.includes(name)));
          if (variants.length === 0) continue;
          const data = { network: profile.name, file, variants: listed(variants) };
          const base = {
            platform,
            module: edition.module,
            variants,
            network: profile.id,
            place: edition.home,
          };
          yield { ...base, message: 'unnamed', data };
        }
      }
    }
  },
});
