import { bannerAnchor, bannerSize } from '../../words/banner-sizes.js';
import { defineRule, type Report } from '../model.js';
import { fromRehearsed, nameOf, rehearsedPlacements, type Rehearsed } from '../rehearsed.js';

/** The maximum share of the screen's height for a banner that stays in view. */
const mostOfHeight = 0.2;

/** A banner is wider than the screen, too high for where it is held, or laid over everything. */
export const bannerDoesNotFit = defineRule({
  meta: {
    id: 'rehearsal/banner-does-not-fit',
    severity: 'warning',
    ifShipped: 'The banner is cut off or covers what people tap: networks count such clicks as invalid.',
    mend: 'Choose another size or place: syndexa placement set {title} {placement} --size SIZE --anchor ANCHOR.',
    otherMends: {
      layout: 'Put the banner above or below the navigation, not over it.',
    },
    messages: {
      wide: '{placement} is {width} points wide; the screen has {screen}.',
      high: '{placement} stays in view at the {anchor} and takes {height} of the {screen} points of the screen.',
      covers: '{placement} covers {navigation}, which is at the same edge.',
    },
    needsTitle: true,
  },
  *run(context) {
    for (const {
      facts: [fact],
    } of rehearsedPlacements(context))
      if (fact.format === 'banner')
        for (const fault of faultsOf(fact)) yield { ...fromRehearsed(fact), ...fault };
  },
});

type Fault = Pick<Report<'wide' | 'high' | 'covers'>, 'message' | 'mend' | 'data'>;

function faultsOf(fact: Rehearsed): Fault[] {
  const { settings, screen, heldAt, covers } = fact;
  const placement = nameOf(fact);
  const { width, height } = bannerSize(settings.size ?? 'standard', screen);
  const anchor = bannerAnchor(settings.anchor, heldAt);
  const faults: Fault[] = [];
  if (covers !== undefined)
    faults.push({ message: 'covers', mend: 'layout', data: { placement, navigation: covers } });
  if (width > screen.width)
    faults.push({
      message: 'wide',
      data: { placement, width: String(width), screen: String(screen.width) },
    });
  if (anchor !== 'inline' && height > screen.height * mostOfHeight)
    faults.push({
      message: 'high',
      data: { placement, anchor, height: String(height), screen: String(screen.height) },
    });
  return faults;
}
