// The words of the model as plain lists: the schemas are made from them, and what must start quickly takes them as
// they are.

export const platformNames = ['android', 'ios'] as const;
export const stageNames = ['test', 'production'] as const;
export const formatNames = [
  'banner',
  'interstitial',
  'rewarded',
  'native',
  'splash',
  'video',
  'notification',
] as const;
export const severityNames = ['blocker', 'warning', 'note'] as const;
export const audienceNames = ['general', 'mixed', 'children'] as const;
export const sizeNames = ['standard', 'large', 'medium-rectangle', 'adaptive'] as const;
export const anchorNames = ['top', 'bottom', 'inline'] as const;
/** The settings that a placement may have, as the roster names them. */
export const settingNames = [
  'refresh',
  'cap',
  'content',
  'skippable',
  'reward',
  'end-card',
  'size',
  'anchor',
  'every',
  'first',
  'timeout',
  'fallback',
] as const;
export const heldAtNames = [
  'top-edge',
  'bottom-edge',
  'no-edge',
  'scrolling-view',
  'whole-layout',
  'own-component',
] as const;
/** Where on its screen a view is anchored. */
export type HeldAt = (typeof heldAtNames)[number];
