import { defineRule } from '../model.js';
import { fromFact } from '../scope.js';

/** A translation gives another ID than the default resources. */
export const overriddenByLocale = defineRule({
  meta: {
    id: 'unit-id/overridden-by-locale',
    severity: 'warning',
    ifShipped: 'Users of that language get another unit, or none; it does not show in the default language.',
    mend: 'Remove the string from the translated file, and mark the default one translatable="false".',
    messages: {
      locale: '{name} is {value} in {folder}.',
    },
    needsTitle: false,
  },
  *run(context) {
    for (const fact of context.survey.facts) {
      if (fact.kind !== 'locale-override') continue;
      const data = { name: fact.name ?? '', value: fact.value, folder: fact.folder };
      yield { ...fromFact(fact), message: 'locale', data };
    }
  },
});
