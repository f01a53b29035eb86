import type { Severity } from '../core/checks/model.js';
import type { Format, Platform, Stage } from '../core/network/model.js';

// The words that options take. They stand here as plain lists so that starting a command need not load the
// schemas; the types keep the two in step.

export const severityNames: readonly Severity[] = ['blocker', 'warning', 'note'];
export const platformNames: readonly Platform[] = ['android', 'ios'];
export const stageNames: readonly Stage[] = ['test', 'production'];
export const formatNames: readonly Format[] = [
  'banner',
  'interstitial',
  'rewarded',
  'native',
  'splash',
  'video',
  'notification',
];
