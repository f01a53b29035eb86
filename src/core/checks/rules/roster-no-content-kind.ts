import { valueAt } from '../../text/own-values.js';
import { defineRule } from '../model.js';
import { listed } from '../scope.js';

/** A placement takes none of the kinds of content that a network has. */
export const noContentKind = defineRule({
  meta: {
    id: 'roster/no-content-kind',
    severity: 'blocker',
    ifShipped: 'No ad fits the placement, and it stays empty.',
    mend: 'Name a kind of content that the network has: syndexa placement set {title} {placement} --content KIND.',
    messages: {
      none: '{placement} takes {own}, but {network} offers {theirs} for the format {format}.',
      nothing: '{placement} takes no kind of content at all.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const [placement, { settings, units, format }] of Object.entries(context.title?.placements ?? {})) {
      const own = settings.content;
      if (own?.length === 0) yield { placement, message: 'nothing', data: { placement } };
      if (!own?.length) continue;
      for (const profile of context.profiles) {
        const theirs = profile.formats[format]?.content;
        if (!valueAt(units, profile.id) || !theirs || own.some((kind) => theirs.includes(kind))) continue;
        const data = { placement, own: listed(own), network: profile.name, theirs: listed(theirs), format };
        yield { placement, network: profile.id, message: 'none', data };
      }
    }
  },
});
