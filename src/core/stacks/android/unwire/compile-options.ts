import type { Change } from '../../../edits/model.js';
import { blockAt } from '../../../formats/gradle/edit.js';
import { literal } from '../../../formats/gradle/query.js';
import { desugarLibrary } from '../../../network/wanted.js';
import { removeLine, removeStatement } from '../../../text/lines.js';
import type { Span } from '../../../text/problem.js';
import { statementsOf } from '../../common/gradle/catalogs.js';
import { settingOf } from '../../common/gradle/parts.js';
import { compileOptions, desugarNames } from '../survey/compile-options.js';
import { allDependencyCalls } from '../survey/dependency-calls.js';
import { findRule } from '../survey/shrinking.js';
import { desugarLibraryMark, desugarMark, optionsMark } from '../wire/compile-options.js';
import { shrinkerMark } from '../wire/shrinker.js';
import { othersNeed, type AndroidUnwireContext } from './context.js';

/** Desugaring that wiring switched on, where no other network needs it. */
export function unwireCompileOptions(context: AndroidUnwireContext): Change[] {
  const { tree, model, network, added } = context;
  const { script } = model.module;
  const text = tree.text(script)?.text;
  if (!network.android?.desugaring || text === undefined) return [];
  if (othersNeed(context, ({ android }) => android?.desugaring !== undefined)) return [];
  const base = { path: script, platform: 'android' as const, network: network.id, rules: [] };
  const change = (span: Span): Change => ({
    ...base,
    topic: 'compile-options',
    kind: 'edit',
    edits: [removeStatement(text, span)],
  });
  const found = settingOf(compileOptions(model), desugarNames);
  const block = blockAt(statementsOf(tree, script), ['android', 'compileOptions']);
  const isAlone = block?.body?.length === 1 && added.has(optionsMark);
  const library = allDependencyCalls(model).filter(
    ({ configuration, call, script: path }) =>
      configuration === 'coreLibraryDesugaring' &&
      path === script &&
      literal(call.args[0]?.value)?.startsWith(`${desugarLibrary}:`),
  );
  return [
    ...(added.has(desugarMark) && found?.path === script ? [change(isAlone ? block : found.statement)] : []),
    ...(added.has(desugarLibraryMark) ? library.map(({ call }) => change(call)) : []),
  ];
}

/** Shrinker rules that wiring added, out of the files that it added them to. */
export function unwireShrinker(context: AndroidUnwireContext): Change[] {
  const { tree, survey, network, added, edition } = context;
  const paths = new Set(
    survey.facts
      .filter((fact) => fact.kind === 'shrinking' && fact.module === edition.module)
      .map(({ value }) => value),
  );
  const own = (network.android?.shrinker ?? []).filter(
    ({ rule }) =>
      added.has(shrinkerMark(rule)) &&
      !othersNeed(context, ({ android }) => android?.shrinker.some((one) => one.rule === rule) ?? false),
  );
  return [...paths].flatMap((path) => {
    const text = tree.text(path)?.text;
    if (text === undefined) return [];
    return own.flatMap(({ rule }): Change[] => {
      const found = findRule(text, rule);
      if (!found) return [];
      const base = { path, platform: 'android' as const, network: network.id, rules: [] };
      return [{ ...base, topic: 'shrinker', kind: 'edit', edits: [removeLine(text, found)] }];
    });
  });
}
