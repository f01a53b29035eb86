import { ineffectiveText, isWhereBuildLooks } from '../../facts/effective.js';
import { defineRule } from '../model.js';
import { fromFact } from '../scope.js';

/** A unit ID is in a layout under a prefix that leads nowhere. */
export const layoutNamespace = defineRule({
  meta: {
    id: 'manifest/layout-namespace',
    severity: 'blocker',
    ifShipped: 'The build stops, or the view does not get its unit ID and stays empty.',
    mend: 'Declare the prefix as http://schemas.android.com/apk/res-auto in the root element of the layout, and use it for the attribute.',
    messages: {
      foreign: '{attribute} is in a layout {where}, so the view does not get it.',
    },
    needsTitle: false,
  },
  *run(context) {
    for (const fact of context.survey.facts) {
      if (fact.kind !== 'unit-id' || fact.carrier !== 'layout' || isWhereBuildLooks(fact)) continue;
      yield {
        ...fromFact(fact),
        message: 'foreign',
        data: { attribute: fact.name ?? '', where: ineffectiveText(fact.effective) ?? '' },
      };
    }
  },
});
