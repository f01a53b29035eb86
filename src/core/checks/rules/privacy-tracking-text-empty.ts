import { defineRule } from '../model.js';
import { trackingKey } from '../../formats/plist/keys.js';
import { isInfoKey } from '../plist-keys.js';
import { fromFact } from '../scope.js';

/** The text that asks for permission to track says nothing. */
export const trackingTextEmpty = defineRule({
  meta: {
    id: 'privacy/tracking-text-empty',
    severity: 'warning',
    ifShipped: 'The store rejects the app, or users decline.',
    mend: 'Say in one sentence what tracking is for in this title.',
    messages: {
      empty: 'The tracking text is {text}, which tells users nothing.',
    },
    needsTitle: false,
  },
  *run(context) {
    for (const fact of context.survey.facts) {
      if (
        fact.kind !== 'plist-key' ||
        fact.name !== trackingKey ||
        fact.type !== 'string' ||
        !isInfoKey(fact)
      )
        continue;
      const plain = fact.value.trim();
      const says =
        plain.split(/\s+/).length >= 3 &&
        !/^(todo|fixme|lorem|your |insert|text here|placeholder)/i.test(plain);
      if (says || plain.includes('$(')) continue;
      yield { ...fromFact(fact), message: 'empty', data: { text: JSON.stringify(fact.value) } };
    }
  },
});
