import { defineRule } from '../model.js';

const buildReads = /\.(xml|plist|pbxproj|toml)$/;

/** A file that the build tools must read is not well-formed. */
export const brokenFile = defineRule({
  meta: {
    id: 'tree/broken-file',
    severity: 'blocker',
    ifShipped: 'The build stops at this file. It was read only in part.',
    mend: 'Correct the file at this line.',
    messages: { broken: '{path} is broken here: {problem}' },
    needsTitle: false,
  },
  *run({ survey }) {
    for (const { path, line, column, kind, message } of survey.problems) {
      if (buildReads.test(path) && kind !== 'not-read') {
        yield { place: { path, line, column }, message: 'broken', data: { path, problem: message } };
      }
    }
  },
});
