// A line for each stack.
export { nativeAndroid } from './android/description.js';
export { expo } from './expo/description.js';
export { flutter } from './flutter/description.js';
export { nativeIos } from './ios/description.js';
export { maui } from './maui/description.js';
export { reactNative } from './react-native/description.js';
export { unity } from './unity/description.js';
