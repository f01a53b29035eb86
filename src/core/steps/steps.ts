import { definitions } from './definitions/index.js';
import type { Step, StepContext, StepDefinition, Tick } from './model.js';

/**
 * Definitions in the order in which they can be done: each after everything that it requires. Among those that
 * could come next, one that follows what was just done goes first, then the one on which the longest way hangs.
 */
export function orderedDefinitions(all: readonly StepDefinition[] = definitions): StepDefinition[] {
  const known = new Map(all.map((definition) => [definition.id, definition]));
  for (const { id, requires } of all)
    for (const name of requires)
      if (!known.has(name)) throw new Error(`The step ${id} requires ${name}, which is no step.`);
  const weight = new Map<string, number>();
  const weigh = (id: string, seen: readonly string[] = []): number => {
    if (seen.includes(id)) throw new Error(`Steps require each other: ${[...seen, id].join(', ')}.`);
    const found = weight.get(id);
    if (found !== undefined) return found;
    const after = all.filter(({ requires }) => requires.includes(id));
    const heaviest = Math.max(0, ...after.map((next) => 1 + weigh(next.id, [...seen, id])));
    weight.set(id, heaviest);
    return heaviest;
  };
  for (const { id } of all) weigh(id);
  const ordered: StepDefinition[] = [];
  const left = new Map(known);
  while (left.size > 0) {
    const ready = [...left.values()].filter(({ requires }) => requires.every((name) => !left.has(name)));
    const follows = ({ requires }: StepDefinition) =>
      Math.max(-1, ...requires.map((name) => ordered.findIndex(({ id }) => id === name)));
    const [next] = ready.sort(
      (a, b) => follows(b) - follows(a) || weigh(b.id) - weigh(a.id) || (a.id < b.id ? -1 : 1),
    );
    if (!next) throw new Error('Steps require each other.');
    ordered.push(next);
    left.delete(next.id);
  }
  return ordered;
}

/** Finds what a person said of a step. */
export type TickOf = (step: string, network: string | null) => Tick | undefined;

/** The steps of one edition, for the networks given, in order; each with its state and what shows it. */
export function stepsOf(contexts: readonly StepContext[], tickOf: TickOf): Step[] {
  const [any] = contexts;
  if (!any) return [];
  const ordered = orderedDefinitions();
  const steps: Step[] = [];
  for (const context of contexts)
    for (const definition of ordered)
      if (definition.per === 'network' && (definition.applies?.(context) ?? true))
        steps.push(stepOf(definition, context, context.profile.id, tickOf));
  for (const definition of ordered)
    if (definition.per === 'edition') steps.push(stepOf(definition, any, null, tickOf));
  return steps.map((step) => blocked(step, steps, ordered));
}

function stepOf(
  definition: StepDefinition,
  context: StepContext,
  network: string | null,
  tickOf: TickOf,
): Step {
  const seen = definition.look(context);
  const tick = tickOf(definition.id, network);
  // What can be seen is never ticked by hand: a tick counts only where nothing can be determined.
  const isUnseen = seen.state === 'cannot-tell' || (seen.state === 'to-do' && seen.mayBeUnseen === true);
  const ticked = isUnseen && tick !== undefined;
  return {
    step: definition.id,
    name: definition.name,
    platform: context.platform,
    network,
    networkName: network === null ? null : context.profile.name,
    state: ticked ? 'done' : seen.state,
    why: ticked ? `${tick.who} said so${tick.note === null ? '' : `: ${tick.note}`}.` : seen.why,
    blockedBy: [],
    evidence: ticked ? [{ what: `ticked by ${tick.who} on ${tick.at}`, place: null }] : (seen.evidence ?? []),
    command: seen.command ?? null,
    page: seen.page ?? null,
    tickable: isUnseen && (seen.command === undefined || seen.mayBeUnseen === true),
    tick: tick ?? null,
  };
}

/** A step that is open while something it requires is open is blocked by that. */
function blocked(step: Step, all: readonly Step[], ordered: readonly StepDefinition[]): Step {
  const definition = ordered.find(({ id }) => id === step.step);
  if (step.state === 'done' && !definition?.gate) return step;
  const requires = definition?.requires ?? [];
  const open = all.filter(
    (other) =>
      requires.includes(other.step) &&
      other.state !== 'done' &&
      (step.network === null || other.network === null || other.network === step.network),
  );
  if (open.length === 0) return step;
  const blockedBy = open.map(({ step: id, network }) =>
    network === null || network === step.network ? id : `${id} (${network})`,
  );
  return { ...step, state: 'blocked', blockedBy };
}
