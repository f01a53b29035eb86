import { nativeAndroid } from './android/index.js';
import { expo } from './expo/index.js';
import { flutter } from './flutter/index.js';
import { nativeIos } from './ios/index.js';
import { reactNative } from './react-native/index.js';
import { maui } from './maui/index.js';
import type { Stack } from './stack.js';
import { unity } from './unity/index.js';

/** Every stack that can be read. Those that build both platforms stand before the native ones, whose trees they hold. */
export const stacks: readonly Stack[] = [flutter, expo, reactNative, unity, maui, nativeAndroid, nativeIos];
