import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';

/** A template that the build is to take stands in its place, and the switch that it hangs on is off. */
export const templateSwitchedOff = defineRule({
  meta: {
    id: 'build/template-switched-off',
    severity: 'blocker',
    ifShipped:
      'The build is made without anything that the template says: no permission, no app ID, no library.',
    mend: 'Switch it on in the settings for players (Publishing Settings); wiring does. Or take the file away.',
    messages: { off: '{file} is there, and the switch {name} is off: the build does not take it.' },
    needsTitle: true,
  },
  *run(context) {
    for (const { facts, networks } of editionScopes(context)) {
      if (networks.length === 0) continue;
      for (const fact of facts) {
        if (fact.kind !== 'template' || fact.isOn) continue;
        yield {
          ...fromFact(fact),
          message: 'off',
          data: { file: fact.file, name: fact.name ?? '' },
        };
      }
    }
  },
});
