import { defineFact } from '../define.js';

/** A choice by platform that has no case for the platform of an edition. */
export const leftOpen = defineFact({
  kind: 'left-open',
  label: 'choice left open',
  description: 'A choice by platform that lacks the case of this one.',
  fields: {},
});
