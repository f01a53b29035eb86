import type { Tree } from '../../../tree/tree.js';
import { frameworkCalls, sharedCodeFacts } from '../../common/common-code.js';
import { surveyParts } from '../../common/native-parts.js';
import type { StackSurvey } from '../../stack.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import { sharedDocumentFacts } from '../../common/documents.js';
import { readDocuments } from '../../common/script-packages/documents.js';
import { packageJsonFacts } from '../../common/script-packages/facts.js';
import { linkingFacts } from './linking.js';
import { projectAt } from '../../common/script-packages/project.js';
import { bundledFiles, isBundledFor } from '../../common/script-packages/sources.js';
import { developmentOf, reactNativeTerms } from './terms.js';

/** Where React Native gets its root component. */
const moments = { run: /(^|\.)AppRegistry\.registerComponent$/ };

/** Surveys the editions that a React Native project builds: its native trees, its packages and its JavaScript. */
export function surveyReactNative(tree: Tree, root: string, context: SurveyContext): StackSurvey {
  const project = projectAt(tree, root);
  if (!project) return { editions: [], facts: [], unresolved: [] };
  const native = surveyParts(tree, project.parts, 'react-native', context);
  const { editions } = native;
  const files = bundledFiles(tree, project);
  const code = sharedCodeFacts(tree, files, {
    editions,
    terms: reactNativeTerms(developmentOf(tree, root)),
    context,
    isBuiltFor: isBundledFor(files),
  });
  const packed = sharedDocumentFacts(tree, readDocuments(tree, project, files), editions, context);
  return {
    editions,
    facts: [
      ...packed.facts,
      ...native.facts,
      ...packageJsonFacts(tree, project, editions, context, 'react-native'),
      ...linkingFacts(tree, project, editions, context, 'react-native'),
      ...code.facts,
      ...frameworkCalls(tree, files, editions, moments),
    ],
    unresolved: [...native.unresolved, ...packed.unresolved, ...code.unresolved],
  };
}
