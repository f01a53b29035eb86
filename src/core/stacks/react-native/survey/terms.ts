import type { Compiled } from '../../../syntax/compiled.js';
import type { ConditionTerms } from '../../../syntax/conditions.js';
import { blockBody, literal, settingIn } from '../../../formats/gradle/query.js';
import type { Expression } from '../../../formats/gradle/model.js';
import type { SurveyEdition, Variant } from '../../../facts/model.js';
import { baseOf, folderOf } from '../../../text/paths.js';
import type { Tree } from '../../../tree/tree.js';
import { scriptNames, statementsOf } from '../../common/gradle/catalogs.js';
import type { IsDevelopment } from '../../common/script-packages/placebook.js';

/** The build types without a bundle of their own, as the Gradle plugin of React Native takes them by default. */
const usual = ['debug', 'debugOptimized'];

/**
 * `__DEV__` of a variant. On Android it is set in those that are debuggable: builds of such a type, and those that
 * `debuggableVariants` names (reactnative.dev, "React Native Gradle Plugin"). On iOS the build phase that bundles
 * asks whether the configuration's name holds `Debug` (`react-native-xcode.sh`).
 */
export function developmentOf(tree: Tree, root: string): IsDevelopment {
  const named = new Set(debuggableIn(tree, root).map((name) => name.toLowerCase()));
  return ({ platform }, { name, type }) =>
    platform === 'ios' ? type.includes('Debug') : usual.includes(type) || named.has(name.toLowerCase());
}

/** The variants that the build scripts below a folder name as debuggable. */
function debuggableIn(tree: Tree, root: string): string[] {
  const scripts = tree.paths.filter(
    (path) => scriptNames.includes(baseOf(path)) && (root === '' || folderOf(path).startsWith(`${root}/`)),
  );
  return scripts.flatMap((path) => {
    const react = blockBody(statementsOf(tree, path), 'react');
    const set = settingIn(react, ['debuggableVariants', 'debuggableVariants.set'])?.value;
    return set ? textsIn(set) : [];
  });
}

function textsIn(expression: Expression): string[] {
  const plain = literal(expression);
  if (plain !== undefined) return [plain];
  if (expression.type === 'call') return expression.args.flatMap(({ value }) => textsIn(value));
  if (expression.type === 'list') return expression.items.flatMap(({ value }) => textsIn(value));
  return [];
}

const decided = (holds: boolean): Compiled => (holds ? 'yes' : 'no');

/** What is asked of the surroundings in which a bundle is made, or of settings that tools put into it. */
const surroundings = /^(?:process\.env|import\.meta\.env|Config|ENV|env)\./;

/** What the build says in the JavaScript of React Native: `Platform`, `__DEV__` and the mode of Node. */
export function reactNativeTerms(
  isDevelopment: IsDevelopment,
): (edition: SurveyEdition, variant: Variant) => ConditionTerms {
  return (edition, variant) => ({
    name(name) {
      if (name === '__DEV__') return decided(isDevelopment(edition, variant));
      return surroundings.test(name) ? 'unknown' : undefined;
    },
    equals(left, right) {
      const text = /^(['"])(.*)\1$/.exec(right)?.[2];
      if (text === undefined) return undefined;
      if (/(^|\.)Platform\.OS$/.test(left)) return decided(text === edition.platform);
      if (left === 'process.env.NODE_ENV')
        return decided(text === (isDevelopment(edition, variant) ? 'development' : 'production'));
      return surroundings.test(left) ? 'unknown' : undefined;
    },
  });
}
