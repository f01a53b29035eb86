import { nativeAndroid } from './android/index.js';
import { nativeIos } from './ios/index.js';
import type { Stack } from './stack.js';

/** Every stack that can be read, in the order in which they are tried. */
export const stacks: readonly Stack[] = [nativeAndroid, nativeIos];
