import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';

/** A native folder that is made from a configuration says something else than the configuration. */
export const nativeFolderStale = defineRule({
  meta: {
    id: 'build/native-folder-stale',
    severity: 'warning',
    ifShipped:
      'What is tried on the desk is not what the build service makes: it makes the folder anew, and edits in it are lost.',
    mend: 'Make the folder anew (npx expo prebuild --clean), and put what was edited in it into the configuration.',
    messages: { differs: 'Here {name} is {value}; the configuration says {said}.' },
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
