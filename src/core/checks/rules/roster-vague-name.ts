import { defineRule } from '../model.js';

/** A placement's name tells neither its place nor its format. */
export const vagueName = defineRule({
  meta: {
    id: 'roster/vague-name',
    severity: 'note',
    ifShipped: 'In reports and on network pages nobody knows which spot the figures are for.',
    mend: 'Name it after its spot: tide-list-footer instead of ad-1.',
    messages: {
      vague: 'The name {placement} says neither where the ad is nor what it is.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const [placement] of Object.entries(context.title?.placements ?? {})) {
      if (!placement.split('-').every((word) => empty.test(word))) continue;
      yield { placement, message: 'vague', data: { placement } };
    }
  },
});

/** Words that could name any placement. */
const empty =
  /^(ads?|unit|placement|slot|zone|spot|test|new|old|main|default|my|the|id|[a-z]|\d+|[a-z]\d+|ad\d+|unit\d+|slot\d+)$/;
