import { groupBy } from '../../text/group-by.js';
import { defineRule } from '../model.js';
import { fromRehearsed, nameOf, rehearsedOnNetworks } from '../rehearsed.js';

/** So many loads at one time are too many. */
const many = 3;

/** All ads of a list are loaded at once. */
export const listLoadedAtOnce = defineRule({
  meta: {
    id: 'rehearsal/list-loaded-at-once',
    severity: 'warning',
    ifShipped:
      'Networks answer one request at a time: most of them fail, and ads are paid for that nobody scrolls to.',
    mend: 'Load one ad after another, as the list is scrolled to it (docs/lists.md).',
    messages: { many: '{count} ads of {placement} are loaded at the same time.' },
    needsTitle: true,
  },
  *run(context) {
    for (const { fact } of rehearsedOnNetworks(context)) {
      const loads = fact.events.filter(({ what, row }) => what === 'load' && row !== undefined);
      const most = Math.max(0, ...[...groupBy(loads, ({ at }) => at).values()].map(({ length }) => length));
      if (most < many) continue;
      const data = { placement: nameOf(fact), count: String(most) };
      yield { ...fromRehearsed(fact), message: 'many', data };
    }
  },
});
