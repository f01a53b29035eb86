import type { ProvisionStep } from './plan.js';

/** Whose settings win where the two differ; undefined where that is not said yet. */
export type Settle = 'roster' | 'partner' | undefined;

/** A step of a plan in words, the same wherever it is shown. */
export interface StepWords {
  is: 'create' | 'take' | 'agrees' | 'differs' | 'by-hand';
  what: string;
  detail: string;
}

/** Says what a step does, or would do. */
export function stepWords(step: ProvisionStep, settle: Settle): StepWords {
  switch (step.do) {
    case 'create-app':
      return {
        is: 'create',
        what: `app  ${step.name} (${step.identifier}), audience ${step.audience}`,
        detail: '',
      };
    case 'take-app':
      return step.isNew
        ? { is: 'take', what: `app  ${step.app.id}`, detail: 'is there already; its ID goes into the roster' }
        : { is: 'agrees', what: `app  ${step.app.id}`, detail: 'agrees' };
    case 'create-unit': {
      const { refresh, content, reward } = step.settings;
      const shown = [
        refresh === undefined ? '' : `refresh ${refresh}`,
        content ? `content ${content.join(', ')}` : '',
        reward ? `${reward.amount} ${reward.item}` : '',
      ].filter(Boolean);
      return { is: 'create', what: `${step.format}  ${step.name}`, detail: shown.join(', ') };
    }
    case 'take-unit': {
      const what = `${step.placement}  ${step.unit.id}`;
      return step.isNew
        ? { is: 'take', what, detail: `is there as “${step.unit.name}”; its ID goes into the roster` }
        : { is: 'agrees', what, detail: 'agrees' };
    }
    case 'settle': {
      const [roster, partner] = [step.roster, step.partner].map((value) => JSON.stringify(value));
      return {
        is: 'differs',
        what: `${step.placement}  ${step.setting}: roster ${roster}, network ${partner}`,
        detail:
          settle === 'roster'
            ? 'the network takes the roster’s'
            : settle === 'partner'
              ? 'the roster takes the network’s'
              : 'say whose setting wins',
      };
    }
    case 'by-hand':
      return { is: 'by-hand', what: step.what, detail: step.why };
  }
}

/** Whether a step changes anything, here or at the network. */
export function isWrite(step: ProvisionStep, settle: Settle): boolean {
  if (step.do === 'create-app' || step.do === 'create-unit') return true;
  return step.do === 'settle' ? settle !== undefined : 'isNew' in step && step.isNew;
}
