import type { Finding } from '../../src/core/checks/model.js';

/** A finding of a check, with what matters to a test put in. */
export function findingOf(more: Partial<Finding> = {}): Finding {
  return {
    rule: 'app-id/missing',
    severity: 'warning',
    message: 'It is missing.',
    mend: 'Add it.',
    platform: 'android',
    module: 'app',
    variants: ['debug'],
    network: 'cobalt-heron',
    placement: null,
    place: { path: 'a.xml', line: 3, column: 5 },
    chain: [],
    fingerprint: 'f1',
    ...more,
  };
}
