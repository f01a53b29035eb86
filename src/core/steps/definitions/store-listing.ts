import type { StepDefinition } from '../model.js';

/** The store lists the identifier and names the developer site. */
export const storeListing: StepDefinition = {
  id: 'store-listing',
  name: 'Link the store listing',
  requires: [],
  per: 'edition',
  look(context) {
    const { listing, identifier, publisher, titleId, platform, canLookUp } = context;
    if (!listing)
      return {
        state: 'cannot-tell',
        why: canLookUp
          ? 'The store was not looked up yet.'
          : 'The service does not know the address of a store.',
        ...(canLookUp ? { command: `syndexa title look-up ${titleId}` } : {}),
      };
    const evidence = [
      {
        what: listing.listed
          ? `${identifier} as ${listing.name ?? ''}, site ${listing.site ?? 'none'} (${listing.lookedAt})`
          : `${identifier} is not listed (${listing.lookedAt})`,
        place: null,
      },
    ];
    if (!listing.listed)
      return { state: 'to-do', why: `The store does not list ${identifier} on ${platform}.`, evidence };
    if (publisher && listing.site !== publisher.domain)
      return {
        state: 'to-do',
        why: `The listing names ${listing.site ?? 'no site'}; app-ads.txt is read from ${publisher.domain} only when it names that.`,
        evidence,
      };
    return { state: 'done', why: 'The store lists it, with the developer site.', evidence };
  },
};
