import type { App } from '../app/model.js';
import { durationMs } from '../../words/durations.js';
import type { Scenario, ScreenAction } from '../scenario/model.js';
import { Device } from './device.js';
import type { Answer, Question } from './questions.js';
import { LongSessionError, type Session } from './session.js';

/** What is under way when the last step is done goes on for so long (ms). */
const lastMoments = 30_000;

/** One rehearsal: the app of a variant, what the user does, and a seed. */
export interface RehearsalInput {
  app: App;
  scenario: Scenario;
  /** The same seed gives the same trace for the same answers. */
  seed: number;
}

/** More actions than this are not planned, all screens together. */
const maxPlanned = 200_000;

/**
 * Plans what a user does; what happens then is for `next` and `answer` of the session.
 * @throws LongSessionError
 */
export function beginRehearsal({ app, scenario, seed }: RehearsalInput): Session {
  const planned = scenario.steps.reduce(
    (sum, step) =>
      sum + (step.do === 'visit' ? step.repeat * (step.each.length + 2) * app.screens.length : 1),
    0,
  );
  if (planned > maxPlanned)
    throw new LongSessionError(
      `The scenario has ${planned} actions on ${app.screens.length} screens; ${maxPlanned} are possible.`,
    );
  const device = new Device(app, scenario, seed);
  const { session } = device;
  let at = 0;
  const plan = (ms: number, run: () => void, always = false) => {
    at += ms;
    session.later(at, () => {
      if (always || device.isRunning) run();
    });
  };
  const planAction = (action: ScreenAction) => {
    plan(
      durationMs(action.after),
      () => device.act(action),
      action.do === 'offline' || action.do === 'online',
    );
    if (action.do === 'leave') at += durationMs(action.for);
  };
  for (const step of scenario.steps) {
    if (step.do === 'launch') plan(durationMs(step.after), () => device.launch(), true);
    else if (step.do === 'answer') plan(durationMs(step.after), () => device.answer());
    else if (step.do === 'kill') plan(durationMs(step.after), () => device.kill());
    else if (step.do !== 'visit') planAction(step);
    else
      for (let round = 0; round < step.repeat; round++)
        for (const screen of screensFor(app, step.placements)) {
          plan(durationMs(step.after), () => device.open(screen));
          for (const action of step.each) planAction(action);
          plan(0, () => device.close());
        }
  }
  session.endAt(at + lastMoments);
  return session;
}

function screensFor({ screens, slots }: App, placements: readonly string[] | undefined): string[] {
  if (!placements) return screens.map(({ id }) => id);
  const wanted = slots
    .filter(({ placement }) => placements.includes(placement))
    .flatMap(({ load, show }) => [load?.screen, show?.screen]);
  return screens.map(({ id }) => id).filter((id) => wanted.includes(id));
}

/** Lives through a session with a network that answers at once. */
export function rehearse(input: RehearsalInput, answer: (question: Question) => Answer): Session {
  const session = beginRehearsal(input);
  for (let question = session.next(); question; question = session.next()) session.answer(answer(question));
  return session;
}

/** Lives through a session with networks that have to be waited for. */
export async function rehearseWith(
  input: RehearsalInput,
  answer: (question: Question) => Promise<Answer>,
): Promise<Session> {
  const session = beginRehearsal(input);
  for (let question = session.next(); question; question = session.next())
    session.answer(await answer(question));
  return session;
}
