import { defineRule } from '../model.js';
import { editionScopes, listed } from '../scope.js';

/** The application class that an SDK needs is neither declared nor extended. */
export const applicationClassMissing = defineRule({
  meta: {
    id: 'manifest/application-class-missing',
    severity: 'blocker',
    ifShipped: 'The SDK is not ready when the first screen needs it, and the app crashes or earns nothing.',
    mend: 'Declare the class in the application element, or let the app’s own class extend it.',
    messages: {
      undeclared: '{network} requires the application class {class}, but none is declared in {variants}.',
      other:
        '{network} requires the application class {class}, but the one of {variants} is {found}, which does not extend it.',
    },
    isAbsence: true,
    needsTitle: true,
  },
  *run(context) {
    for (const scope of editionScopes(context)) {
      const { platform, edition } = scope;
      if (platform !== 'android') continue;
      for (const profile of scope.networks) {
        const wanted = profile.android?.application?.class;
        if (wanted === undefined) continue;
        const classes = scope.facts.filter(({ kind }) => kind === 'application-class');
        const declared = classes.filter(({ name }) => name === undefined);
        const extending = classes.filter(({ name, network }) => name !== undefined && network === profile.id);
        const fits = ({ value }: { value: string }) =>
          value === wanted || extending.some((own) => value.split('.').at(-1) === own.value);
        const variants = edition.variants
          .map(({ name }) => name)
          .filter((name) => !declared.some((fact) => fact.variants.includes(name) && fits(fact)));
        if (variants.length === 0) continue;
        const found = declared.find((fact) => fact.variants.some((name) => variants.includes(name)));
        const data = { network: profile.name, class: wanted, variants: listed(variants) };
        const base = { platform, module: edition.module, variants, network: profile.id };
        yield found
          ? {
              ...base,
              place: found.place,
              chain: found.chain,
              message: 'other',
              data: { ...data, found: found.value },
            }
          : { ...base, place: edition.home, message: 'undeclared', data };
      }
    }
  },
});
