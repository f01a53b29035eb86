import { callsIn, literal } from '../../../formats/gradle/query.js';
import type { Argument, Expression } from '../../../formats/gradle/model.js';
import { blockParts, callsOf } from '../../common/gradle/parts.js';
import type { AndroidVariant, ModuleModel } from './variants.js';

/** A line of a `dependencies { }` block that reaches a variant. */
export interface DependencyCall {
  /** `implementation`, `freeDebugApi`, … */
  configuration: string;
  call: Expression & { type: 'call' };
  script: string;
  conditional: boolean;
}

/** What a module's `dependencies { }` blocks put into a variant: into the app itself, not only before the compiler. */
export function dependencyCalls(model: ModuleModel, variant: AndroidVariant): DependencyCall[] {
  return allDependencyCalls(model).filter(({ configuration }) => reaches(configuration, variant));
}

/** Every line of a module's `dependencies { }` blocks; `add("implementation", …)` reads as `implementation(…)`. */
export function allDependencyCalls(model: ModuleModel): DependencyCall[] {
  return callsOf(blockParts(model.parts, 'dependencies'), callsIn).map(
    ({ path, call, script, conditional }): DependencyCall => {
      const [first, ...rest]: Argument[] = call.args;
      const added = path === 'add' ? literal(first?.value) : undefined;
      return added === undefined
        ? { configuration: path, call, script, conditional }
        : { configuration: added, call: { ...call, args: rest }, script, conditional };
    },
  );
}

/** Whether a configuration such as `freeDebugImplementation` reaches a variant. `compileOnly` never ships. */
function reaches(configuration: string, variant: AndroidVariant): boolean {
  const match = /^(.*?)(implementation|api|compile|runtimeOnly|apk)$/i.exec(configuration);
  if (!match) return false;
  const prefix = (match[1] ?? '').toLowerCase();
  return prefix === '' || variant.sourceSets.some((set) => set !== 'main' && set.toLowerCase() === prefix);
}
