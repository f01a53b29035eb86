import { counted } from '../../text/counted.js';
import { breaksFile, byFile } from '../broken-files.js';
import { defineRule } from '../model.js';

/** A file that the build tools must read is not well-formed. */
export const brokenFile = defineRule({
  meta: {
    id: 'tree/broken-file',
    severity: 'blocker',
    ifShipped: 'The build stops at this file. It was read only in part.',
    mend: 'Correct the file at this line.',
    messages: {
      broken: '{path} is broken here: {problem}',
      often: '{path} is broken here and in {more}: {problem}',
    },
    needsTitle: false,
  },
  *run({ survey }) {
    for (const { first, more } of byFile(survey.problems.filter(breaksFile))) {
      const { path, line, column, message } = first;
      const data = { path, problem: message };
      const place = { path, line, column };
      if (more === 0) yield { place, message: 'broken', data };
      else yield { place, message: 'often', data, changing: { more: counted(more, 'more place') } };
    }
  },
});
