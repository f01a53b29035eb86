/** Whether a stretch of code goes into a build: yes, no, or it depends on what reading cannot tell. */
export type Compiled = 'yes' | 'no' | 'unknown';

export function both(a: Compiled, b: Compiled): Compiled {
  if (a === 'no' || b === 'no') return 'no';
  return a === 'yes' && b === 'yes' ? 'yes' : 'unknown';
}

export function either(a: Compiled, b: Compiled): Compiled {
  if (a === 'yes' || b === 'yes') return 'yes';
  return a === 'no' && b === 'no' ? 'no' : 'unknown';
}

export function opposite(a: Compiled): Compiled {
  return a === 'unknown' ? a : a === 'yes' ? 'no' : 'yes';
}
