import type { StackDescription } from '../description.js';

/** Native Android. */
export const nativeAndroid = {
  id: 'native-android',
  name: 'native Android',
  languages: ['kotlin', 'java'],
  native: 'android',
} as const satisfies StackDescription;
