import { inOurWords } from '../../text/issue-text.js';
import { durationMs } from '../../words/durations.js';
import { fieldProblems, readYaml, type FieldProblem } from '../../formats/yaml/read.js';
import { Scenario, type ScreenAction, type Step } from './model.js';

/** A rehearsal does not live through more than this, in milliseconds. */
const longest = 48 * 3_600_000;
const maxActions = 20_000;

/** Reads a scenario. It is returned only when nothing is wrong with it: also no step that cannot happen. */
export function readScenario(text: string): { scenario: Scenario | null; problems: FieldProblem[] } {
  const yaml = readYaml(text);
  if (yaml.problems.length > 0) return { scenario: null, problems: yaml.problems };
  const parsed = Scenario.safeParse(yaml.value, inOurWords);
  if (!parsed.success) return { scenario: null, problems: fieldProblems(parsed.error, yaml) };
  const problems = impossibleSteps(parsed.data).map(({ path, message, fix }) => {
    const place = yaml.placeOf(path);
    return { field: path.join('.'), message, fix, ...(place ? { place } : {}) };
  });
  return { scenario: problems.length === 0 ? parsed.data : null, problems };
}

interface Impossible {
  path: (string | number)[];
  message: string;
  fix: string;
}

/** The state of the app and the device as far as steps depend on it. */
interface State {
  isRunning: boolean;
  isOnline: boolean;
  time: number;
  actions: number;
}

/** Steps that cannot happen when their turn comes, and scenarios beyond the bounds. */
export function impossibleSteps({ steps }: Scenario): Impossible[] {
  const state: State = { isRunning: false, isOnline: true, time: 0, actions: 0 };
  const found: Impossible[] = [];
  steps.forEach((step, index) => {
    const path = ['steps', index];
    const fault = faultOf(step, state);
    if (fault) found.push({ path, ...fault });
    if (step.do !== 'visit') return;
    step.each.forEach((action, at) => {
      const inner = connectionFault(action, state);
      if (inner) found.push({ path: [...path, 'each', at], ...inner });
    });
    const once = step.each.reduce((sum, action) => sum + lengthOf(action), 0);
    state.time += once * (step.repeat - 1);
    state.actions += (step.each.length + 1) * step.repeat;
    if (step.repeat > 1 && changesConnection(step.each))
      found.push({
        path,
        message: 'The connection differs when the visit is repeated.',
        fix: 'End each visit online.',
      });
  });
  if (state.time > longest)
    found.push({ path: ['steps'], message: 'They take longer than 48 hours.', fix: 'Shorten them.' });
  if (state.actions > maxActions)
    found.push({
      path: ['steps'],
      message: `They are more than ${maxActions} actions on each screen.`,
      fix: 'Repeat visits less often.',
    });
  return found;
}

function faultOf(step: Step, state: State): Pick<Impossible, 'message' | 'fix'> | null {
  state.time += durationMs(step.after) + (step.do === 'leave' ? durationMs(step.for) : 0);
  state.actions++;
  if (step.do === 'launch') {
    if (state.isRunning)
      return { message: 'The app is already running.', fix: 'Kill it first, or remove this step.' };
    state.isRunning = true;
    return null;
  }
  const connection = connectionFault(step, state);
  if (connection) return connection;
  if (step.do === 'offline' || step.do === 'online' || step.do === 'wait') return null;
  if (!state.isRunning)
    return { message: `The app is not running yet, so nobody can ${step.do}.`, fix: 'Launch it first.' };
  if (step.do === 'kill') state.isRunning = false;
  return null;
}

function connectionFault(
  step: Step | ScreenAction,
  state: State,
): Pick<Impossible, 'message' | 'fix'> | null {
  if (step.do !== 'offline' && step.do !== 'online') return null;
  const isOnline = step.do === 'online';
  if (state.isOnline === isOnline)
    return {
      message: `The device is ${isOnline ? 'online' : 'offline'} already.`,
      fix: `Go ${isOnline ? 'offline' : 'online'} first, or remove this step.`,
    };
  state.isOnline = isOnline;
  return null;
}

const lengthOf = (action: ScreenAction): number =>
  durationMs(action.after) + (action.do === 'leave' ? durationMs(action.for) : 0);

function changesConnection(each: readonly ScreenAction[]): boolean {
  const changes = each.filter((action) => action.do === 'offline' || action.do === 'online');
  return changes.length % 2 === 1;
}
