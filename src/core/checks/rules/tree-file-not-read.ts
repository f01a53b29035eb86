import { defineRule } from '../model.js';

const buildReads = /\.(xml|plist|pbxproj|toml)$/;

/** A file that matters could not be read, or not to its end. */
export const fileNotRead = defineRule({
  meta: {
    id: 'tree/file-not-read',
    severity: 'warning',
    ifShipped: 'The content of this file is unknown, so it was not checked.',
    mend: 'Make the file readable, or exclude it on purpose.',
    messages: { unread: '{path}: {problem}' },
    needsTitle: false,
  },
  *run({ survey }) {
    for (const { path, line, column, kind, message } of survey.problems) {
      if (!buildReads.test(path) || kind === 'not-read') {
        yield { place: { path, line, column }, message: 'unread', data: { path, problem: message } };
      }
    }
  },
});
