// A line for each stack.
export { nativeAndroid } from './android/index.js';
export { expo } from './expo/index.js';
export { flutter } from './flutter/index.js';
export { nativeIos } from './ios/index.js';
export { maui } from './maui/index.js';
export { reactNative } from './react-native/index.js';
export { unity } from './unity/index.js';
