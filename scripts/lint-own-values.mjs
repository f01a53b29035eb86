// A lint rule: a table whose names come from input is not indexed as a plain object, for `constructor` and its like are
// members of every object. Such a table is a Map, or is read and written by valueAt, putAt and entryAt.
import ts from 'typescript';
import { ESLintUtils } from '@typescript-eslint/utils';

export const ownValues = ESLintUtils.RuleCreator.withoutDocs({
  meta: {
    type: 'problem',
    schema: [],
    messages: {
      indexed:
        'Use valueAt, putAt or entryAt (core/text/own-values), or a Map: this name may be a member of every object.',
    },
  },
  defaultOptions: [],
  create(context) {
    const services = ESLintUtils.getParserServices(context);
    const checker = services.program.getTypeChecker();
    const some = (type, test) => (type.isUnion() ? type.types.some((each) => some(each, test)) : test(type));
    const isTable = (type) =>
      some(
        type,
        (each) =>
          checker.getIndexInfoOfType(each, ts.IndexKind.String) !== undefined &&
          !checker.isArrayType(each) &&
          !checker.isTupleType(each),
      );
    const isAnyName = (type) =>
      some(type, ({ flags }) => (flags & (ts.TypeFlags.String | ts.TypeFlags.TemplateLiteral)) !== 0);
    return {
      MemberExpression(node) {
        if (!node.computed) return;
        if (!isAnyName(services.getTypeAtLocation(node.property))) return;
        if (isTable(services.getTypeAtLocation(node.object))) context.report({ node, messageId: 'indexed' });
      },
    };
  },
});
