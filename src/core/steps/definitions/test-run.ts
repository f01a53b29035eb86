import { isRight } from '../../rehearsal/report.js';
import type { Seen, StepContext, StepDefinition } from '../model.js';

/** A person may have seen it on a device of their own. */
const mayBeUnseen = true;

/** A run with the network’s test ads: on the simulated device, or on one that a person holds. */
export const testRun: StepDefinition = {
  id: 'test-run',
  name: 'Run it with test ads',
  requires: ['placements-in-code'],
  per: 'network',
  look(context) {
    const { rehearsal, reading, profile, titleId } = context;
    const command = `syndexa rehearse DIR --title ${titleId}`;
    if (!rehearsal)
      return {
        state: 'cannot-tell',
        why: `Nothing was rehearsed yet, and only a person sees whether ${profile.name} shows its test ads on a device.`,
        command,
        mayBeUnseen,
        ...(profile.site === undefined ? {} : { page: profile.site }),
      };
    if (reading && reading.snapshot !== rehearsal.snapshot)
      return {
        state: 'to-do',
        why: `The tree has changed since it was rehearsed on ${day(rehearsal.at)}.`,
        command,
        mayBeUnseen,
      };
    return seenIn(context, rehearsal, command);
  },
};

function seenIn(
  { profile }: StepContext,
  { at, scenario, runs, found }: NonNullable<StepContext['rehearsal']>,
  command: string,
): Seen {
  const rules = [
    ...new Set(
      found.filter(({ network }) => network === null || network === profile.id).map(({ rule }) => rule),
    ),
  ];
  if (rules.length > 0)
    return {
      state: 'to-do',
      why: `The rehearsal of ${day(at)} found ${rules.join(', ')}.`,
      command,
      mayBeUnseen,
    };
  const tests = runs.filter(({ stage }) => stage === 'test');
  const without = tests.filter(
    ({ placements }) =>
      !placements.some(({ networks }) =>
        networks.some(({ network, verdict }) => network === profile.id && isRight(verdict, 'test')),
      ),
  );
  if (tests.length === 0 || without.length > 0) {
    const where = without.map(({ variant }) => variant).join(', ') || 'any variant for testing';
    return {
      state: 'to-do',
      why: `The rehearsal of ${day(at)} showed no ad of ${profile.name} in ${where}.`,
      command,
      mayBeUnseen,
    };
  }
  return {
    state: 'done',
    why: `The rehearsal of ${day(at)} (${scenario}) showed its test ads, and found nothing.`,
  };
}

const day = (at: string): string => at.slice(0, 10);
