import { ruleNamed, rules } from '../checks/rules/index.js';
import { Topic, type WiringChoice } from '../edits/model.js';
import type { FieldProblem } from '../formats/yaml/read.js';
import { editsApart } from '../text/edit-distance.js';
import { Platform } from '../words/words.js';
import { isNamed } from './choose.js';

/** What is wrong with the rules and parts that a wiring is narrowed to: a name that does not exist. */
export function choiceProblems({ rules: named, groups }: WiringChoice): FieldProblem[] {
  const ids = rules.map(({ meta }) => meta.id);
  return [
    ...unknownNames('rules', named, (id) => ruleNamed(id) !== undefined, {
      what: 'rule',
      near: ids,
      otherwise: 'Name rules as a check prints them, such as app-id/missing.',
    }),
    ...unknownNames('groups', groups, isGroupId, {
      what: 'part',
      near: [],
      otherwise: `A part is PLATFORM/NETWORK/TOPIC, such as android/cobalt-heron/app-id; the network may be all. Topics are ${Topic.options.join(', ')}.`,
    }),
  ];
}

/** What is wrong with the variants that a wiring is narrowed to, in a tree that builds these. */
export function variantProblems({ variants }: WiringChoice, built: readonly string[]): FieldProblem[] {
  return unknownNames('variants', variants, (name) => isNamed(name, built), {
    what: 'variant',
    near: built,
    otherwise: built.length === 0 ? 'The tree builds no variant.' : `The tree builds ${built.join(', ')}.`,
  });
}

function unknownNames(
  field: keyof WiringChoice,
  names: readonly string[],
  isKnown: (name: string) => boolean,
  { what, near, otherwise }: { what: string; near: readonly string[]; otherwise: string },
): FieldProblem[] {
  return names.flatMap((name, at) => {
    if (isKnown(name)) return [];
    const meant = near.find((known) => editsApart(known.toLowerCase(), name.toLowerCase(), 2) !== undefined);
    const fix = meant === undefined ? otherwise : `Did you mean ${meant}?`;
    return [{ field: `choice.${field}.${at}`, message: `There is no ${what} ${name}.`, fix }];
  });
}

/** Whether a text has the form of a group’s ID. A group without remaining edits is still valid. */
function isGroupId(id: string): boolean {
  const [platform, network, topic, ...rest] = id.split('/');
  return (
    Platform.safeParse(platform).success &&
    network !== undefined &&
    network !== '' &&
    Topic.safeParse(topic).success &&
    rest.length === 0
  );
}
