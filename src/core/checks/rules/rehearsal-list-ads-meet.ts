import { listRows } from '../../languages/common/list-rows.js';
import { groupBy } from '../../text/group-by.js';
import { defineRule } from '../model.js';
import { fromRehearsed, nameOf, rehearsedPlacements } from '../rehearsed.js';

/** A list of this length is looked at. */
const items = 200;

/** Two placements of one list put their ads beside each other. */
export const listAdsMeet = defineRule({
  meta: {
    id: 'rehearsal/list-ads-meet',
    severity: 'warning',
    ifShipped: 'Two ads follow each other without content between: networks do not pay for that.',
    mend: 'Give the two placements different places: syndexa placement set {title} {other} --first N --every N.',
    messages: { meet: 'After item {item} of the list, ads of {placement} and {other} follow each other.' },
    needsTitle: true,
  },
  *run(context) {
    const lists = rehearsedPlacements(context).filter(
      ({ facts: [fact] }) => fact.format === 'native' && fact.place.path !== '',
    );
    const byScreen = groupBy(lists, ({ facts: [fact] }) =>
      JSON.stringify([fact.platform, fact.variants, fact.place.path]),
    );
    for (const [first, ...others] of byScreen.values())
      for (const {
        facts: [other],
      } of others) {
        const fact = first?.facts[0];
        const own = new Set(fact ? itemsBeforeAds(fact.settings) : []);
        const item = itemsBeforeAds(other.settings).find((one) => own.has(one));
        if (!fact || item === undefined) continue;
        const data = { placement: nameOf(fact), other: nameOf(other), item: String(item) };
        yield { ...fromRehearsed(fact), message: 'meet', data };
      }
  },
});

/** After how many items the ads of a list come. */
function itemsBeforeAds(settings: Parameters<typeof listRows>[0]): number[] {
  let before = 0;
  return listRows(settings, items).flatMap((row) => {
    if (row === 'ad') return [before];
    before++;
    return [];
  });
}
