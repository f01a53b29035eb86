import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';

/** A native folder that is made from a configuration says something else than the configuration. */
export const nativeFolderStale = defineRule({
  meta: {
    id: 'build/native-folder-stale',
    severity: 'warning',
    ifShipped:
      'What is tested locally is not what the build service builds: it generates the folder again, and edits in it are lost.',
    mend: 'Generate the folder again (npx expo prebuild --clean), and move edits from it into the configuration.',
    messages: { differs: 'Here {name} is {value}, but the configuration says {said}.' },
    needsTitle: true,
  },
  *run(context) {
    for (const { facts } of editionScopes(context)) {
      for (const fact of facts) {
        if (fact.kind !== 'stale-folder') continue;
        const data = { name: fact.name ?? '', value: fact.value, said: fact.expected ?? 'nothing' };
        yield { ...fromFact(fact), message: 'differs', data };
      }
    }
  },
});
