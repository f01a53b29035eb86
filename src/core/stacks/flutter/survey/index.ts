import type { Tree } from '../../../tree/tree.js';
import { surveyParts } from '../../common/native-parts.js';
import { sharedDocumentFacts } from '../../common/documents.js';
import { frameworkCalls, sharedCodeFacts } from '../../common/common-code.js';
import type { StackSurvey } from '../../stack.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import { pubspecFacts } from './dependencies.js';
import { dartFiles, packedDocuments, projectAt } from './project.js';
import { flutterTerms } from './terms.js';

/** What Flutter itself is called for: the binding that has to are first, and the start of the interface. */
const moments = {
  ready: /(^|\.)WidgetsFlutterBinding\.ensureInitialized$/,
  run: /^runApp$/,
};

/** The tool writes it before each build, and it only says where Flutter and the version are. */
const made = /\bGenerated\.xcconfig\b/;

/** Surveys the editions that a Flutter project builds: its native trees, its pubspec and its Dart. */
export function surveyFlutter(tree: Tree, root: string, context: SurveyContext): StackSurvey {
  const project = projectAt(tree, root);
  if (!project) return { editions: [], facts: [], unresolved: [] };
  const native = surveyParts(tree, project.parts, 'flutter', context);
  const { editions } = native;
  const files = dartFiles(tree, root);
  const code = sharedCodeFacts(tree, files, { editions, terms: flutterTerms, context });
  const packed = sharedDocumentFacts(tree, packedDocuments(tree, project), editions, context);
  return {
    editions,
    facts: [
      ...native.facts,
      ...packed.facts,
      ...pubspecFacts(tree, project, editions, context),
      ...code.facts,
      ...frameworkCalls(tree, files, editions, moments),
    ],
    unresolved: [
      ...native.unresolved.filter(({ value }) => value === undefined || !made.test(value)),
      ...packed.unresolved,
      ...code.unresolved,
    ],
  };
}
