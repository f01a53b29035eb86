// A lint rule: code does not test text that is meant for people. What it wants to know has a field of its own.
import { ESLintUtils } from '@typescript-eslint/utils';

/** Names of fields and variables that hold text for people. */
const prose = new Set([
  'advice',
  'detail',
  'doing',
  'ifShipped',
  'label',
  'mend',
  'message',
  'reason',
  'says',
  'stageWhy',
  'what',
  'why',
]);
const searches = new Set(['startsWith', 'endsWith', 'includes', 'indexOf', 'match', 'matchAll', 'search']);
const patterns = new Set(['test', 'exec']);

/** The last name of `error.message`, `message`, `message ?? ''` or `message!`. */
function nameOf(node) {
  if (node?.type === 'Identifier') return node.name;
  if (node?.type === 'MemberExpression' && node.property.type === 'Identifier') return node.property.name;
  if (node?.type === 'LogicalExpression') return nameOf(node.left);
  if (node?.type === 'ChainExpression' || node?.type === 'TSNonNullExpression')
    return nameOf(node.expression);
  return undefined;
}

export const proseTests = ESLintUtils.RuleCreator.withoutDocs({
  meta: {
    type: 'problem',
    schema: [],
    messages: {
      tested: '“{{name}}” is text for people: give what is asked here a field of its own, and test that.',
    },
  },
  defaultOptions: [],
  create(context) {
    return {
      CallExpression(node) {
        const { callee } = node;
        if (callee.type !== 'MemberExpression' || callee.property.type !== 'Identifier') return;
        const called = callee.property.name;
        const tested = searches.has(called)
          ? callee.object
          : patterns.has(called)
            ? node.arguments[0]
            : undefined;
        const name = nameOf(tested);
        if (prose.has(name)) context.report({ node, messageId: 'tested', data: { name } });
      },
    };
  },
});
