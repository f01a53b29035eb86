import { breaksFile, byFile } from '../broken-files.js';
import { defineRule } from '../model.js';

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
    for (const { first } of byFile(survey.problems.filter((problem) => !breaksFile(problem)))) {
      const { path, line, column, message } = first;
      yield { place: { path, line, column }, message: 'unread', data: { path, problem: message } };
    }
  },
});
