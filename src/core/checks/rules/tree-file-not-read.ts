import { defineRule } from '../model.js';

const buildReads = /\.(xml|plist|pbxproj|toml)$/;

/** A file that matters could not be read, or not to its end. */
export const fileNotRead = defineRule({
  meta: {
    id: 'tree/file-not-read',
    severity: 'warning',
    ifShipped: 'What stands in this file is not known, so nothing here speaks for it.',
    mend: 'Make the file readable, or leave it out on purpose.',
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
