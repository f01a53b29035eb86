import { defineFact } from '../define.js';

/** The Java level that a module is compiled for; the name is the language that it holds for. */
export const javaLevel = defineFact({
  kind: 'java-level',
  label: 'Java level',
  description: 'The Java level that the Java or Kotlin code of a module is compiled for.',
  fields: {},
});
