import type { StackDescription } from '../description.js';

/** Native iOS. */
export const nativeIos = {
  id: 'native-ios',
  name: 'native iOS',
  languages: ['swift', 'objective-c'],
  native: 'ios',
} as const satisfies StackDescription;
