// A line for each language.
export { csharp } from './csharp/index.js';
export { dart } from './dart/index.js';
export { java } from './java/index.js';
export { kotlin } from './kotlin/index.js';
export { objectiveC } from './objective-c/index.js';
export { swift } from './swift/index.js';
export { typescript } from './typescript/index.js';
