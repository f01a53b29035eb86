import { isInItsFolder } from '../companions.js';
import { defineRule } from '../model.js';
import { editionScopes, listed } from '../scope.js';

/** The file that a network provides per application is not where the build looks for it. */
export const companionMissing = defineRule({
  meta: {
    id: 'companion/missing',
    severity: 'blocker',
    ifShipped: 'The build stops, or the SDK starts without knowing whose application it is.',
    mend: 'Download the file from the network’s pages and put it in the place named here.',
    messages: {
      missing: '{network} requires its file {file}, which is missing in {variants}.',
      astray: '{network} requires its file {file}, but it is in {path}, where the build does not look.',
    },
    isAbsence: true,
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      const { platform, edition } = scope;
      for (const profile of scope.networks) {
        const companion = profile[platform]?.companion;
        if (!companion) continue;
        const files = [...scope.facts, ...context.survey.unresolved].filter(
          (fact) =>
            fact.kind === 'companion' &&
            fact.network === profile.id &&
            fact.platform === platform &&
            fact.module === edition.module,
        );
        const inPlace = files.filter(isInItsFolder);
        const variants = edition.variants
          .map(({ name }) => name)
          .filter((name) => !inPlace.some((fact) => fact.variants.includes(name)));
        if (variants.length === 0) continue;
        const astray = files.find((fact) => !isInItsFolder(fact));
        const base = { platform, module: edition.module, variants, network: profile.id };
        const data = { network: profile.name, file: companion.file, variants: listed(variants) };
        yield astray
          ? { ...base, place: astray.place, message: 'astray', data: { ...data, path: astray.place.path } }
          : { ...base, place: edition.home, message: 'missing', data };
      }
    }
  },
});
