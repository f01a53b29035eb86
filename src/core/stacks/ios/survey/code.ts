import { callFacts } from '../../../code/calls.js';
import { codeFacts } from '../../../code/facts.js';
import { languageOf } from '../../../languages/index.js';
import { type CodeFile } from '../../../code/source-files.js';
import { sharedNames } from '../../../code/shared-names.js';
import { compiledAt, definedIn } from '../../../syntax/preprocessor.js';
import { isWithin } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import type { Fact, Unresolved } from '../../../facts/model.js';
import type { SurveyContext } from '../../../roster/survey-context.js';
import { delegateFacts } from './app-delegate.js';
import { membershipOf } from './membership.js';
import { clangDefinitionsOf, swiftConditionsOf } from './settings.js';
import type { IosVariant, TargetModel } from './targets.js';

/** IDs, calls and callbacks in the Swift and Objective-C that a variant compiles, each branch of an `#if` weighed. */
export function codeOf(
  tree: Tree,
  model: TargetModel,
  variant: IosVariant,
  context: SurveyContext,
): { facts: Fact[]; unresolved: Unresolved[] } {
  const facts: Fact[] = [];
  const unresolved: Unresolved[] = [];
  const { compiles } = membershipOf(model);
  const paths = tree.paths.filter(
    (path) => /\.(swift|mm?)$/.test(path) && isWithin(path, model.project.folder) && compiles(path),
  );
  const shared = sharedNames(tree, paths);
  const conditions = { swift: swiftConditionsOf(variant.scope), clang: clangDefinitionsOf(variant.scope) };
  const siblings: CodeFile[] = [];
  for (const path of paths) {
    const names = languageOf(path)?.id === 'swift' ? conditions.swift : conditions.clang;
    const compiled = compiledAt(tree.text(path)?.text ?? '', definedIn(names));
    siblings.push({
      path,
      platform: 'ios',
      module: model.module,
      variants: [variant.name],
      compiled: (_, offset) => compiled(offset),
      shared,
      siblings,
    });
  }
  for (const file of siblings) {
    const found = codeFacts(tree, file, context);
    facts.push(...found.facts, ...callFacts(tree, file, context), ...delegateFacts(tree, file));
    unresolved.push(...found.unresolved);
  }
  return { facts, unresolved };
}
