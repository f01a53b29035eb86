import { ineffectiveText, isWhereBuildLooks } from '../../facts/effective.js';
import { defineRule } from '../model.js';
import { fromFact } from '../scope.js';

/** A unit ID stands in a layout under a prefix that leads nowhere. */
export const layoutNamespace = defineRule({
  meta: {
    id: 'manifest/layout-namespace',
    severity: 'blocker',
    ifShipped: 'The build stops, or the view never sees its unit ID and stays empty.',
    mend: 'Bind the prefix to http://schemas.android.com/apk/res-auto at the layout’s root element, and write the attribute with it.',
    messages: {
      foreign: '{attribute} stands in a layout, {where}: the view never sees it.',
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
