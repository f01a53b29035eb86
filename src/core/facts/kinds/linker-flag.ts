import { defineFact } from '../define.js';

/** A linker flag that a profile requires and a variant sets. */
export const linkerFlag = defineFact({
  kind: 'linker-flag',
  label: 'linker flag',
  description: 'A linker flag that a variant sets.',
  fields: {},
});
