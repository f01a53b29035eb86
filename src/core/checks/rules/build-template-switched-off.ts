import { defineRule } from '../model.js';
import { editionScopes, fromFact } from '../scope.js';

/** A template that the build is to take is in its place, and the switch that it hangs on is off. */
export const templateSwitchedOff = defineRule({
  meta: {
    id: 'build/template-switched-off',
    severity: 'blocker',
    ifShipped: 'The build ignores the template: its permissions, app ID and libraries are missing.',
    mend: 'Enable it in the player settings (Publishing Settings), or delete the file.',
    byWiring: 'Run syndexa wire: it enables the file in the player settings.',
    messages: { off: '{file} exists, but {name} is off, so the build does not use it.' },
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
