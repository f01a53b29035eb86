import { isEnrolled } from '../../../roster/expected.js';
import type { ByHand } from '../../../edits/model.js';
import { catalogOf } from '../../common/gradle/catalogs.js';
import type { AndroidWireContext } from './context.js';
import { unreadScript } from './unread.js';

/** The lines that add each missing dependency, in the form that this tree uses. */
export function dependencySteps(context: AndroidWireContext): ByHand[] {
  const { tree, model, title, profiles, survey } = context;
  const { script, root } = model.module;
  const catalog = catalogOf(tree, root);
  return profiles.flatMap((profile) => {
    const wanted = profile.android?.dependencies ?? [];
    if (!isEnrolled(title, profile.id, 'android')) return [];
    return wanted
      .filter(
        ({ coordinate }) =>
          !survey.facts.some(
            (fact) =>
              fact.kind === 'dependency' &&
              fact.name === coordinate &&
              fact.module === context.edition.module,
          ),
      )
      .map(({ coordinate, version, why }): ByHand => {
        const full = `${coordinate}:${version}`;
        const alias = coordinate.split(':').pop() ?? profile.id;
        const name = `${profile.id}-${alias}`;
        const line = script.endsWith('.kts') ? `implementation("${full}")` : `implementation '${full}'`;
        const repositories = profile.android?.repositories.map(({ url }) => url).join(', ');
        const add = catalog
          ? `Add ${name} = { module = "${coordinate}", version = "${version}" } to [libraries] in ${catalog.path}, and implementation(libs.${name.replace(/-/g, '.')}) to dependencies.`
          : `Add ${line} to dependencies.`;
        const unread = unreadScript(context);
        const unless = unread
          ? ` unless ${unread.chain[0]?.value ?? 'what could not be read'} brings it`
          : '';
        const origin = repositories
          ? ` It comes from ${repositories}, which must be among the tree’s repositories.`
          : '';
        return {
          platform: 'android',
          network: profile.id,
          rule: 'build/dependency-missing',
          what: `${add.replace(/\.$/, '')}${unless}.${origin}`,
          why: `${profile.name}: ${why}${unread ? ` It is not known ${unread.what}: ${unread.reason}.` : ''}`,
          where: script,
        };
      });
  });
}
