import { isView } from '../code.js';
import { defineRule } from '../model.js';
import { fromFact } from '../scope.js';

/** A banner is held at no edge of the screen. */
export const bannerNotAnchored = defineRule({
  meta: {
    id: 'manifest/banner-not-anchored',
    severity: 'note',
    ifShipped:
      'The banner covers content on some screens and is tapped by mistake, and networks refund such clicks.',
    mend: 'Anchor the view to the top or bottom edge of its container.',
    messages: {
      loose: '{view} is not anchored to an edge of its container.',
    },
    needsTitle: false,
  },
  *run(context) {
    for (const fact of context.survey.facts) {
      if (!isView(fact) || fact.anchor !== 'no-edge') continue;
      yield { ...fromFact(fact), message: 'loose', data: { view: fact.value } };
    }
  },
});
