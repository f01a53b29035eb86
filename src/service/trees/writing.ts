// Writing into trees, and taking it back: what the client loads only when it writes.
export { applyToTree, FileChangedError, recoverTree } from './apply.js';
export { entryOf, WriteRecords } from './write-records.js';
