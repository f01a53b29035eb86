import { writerOf } from '../context.js';
import type { Handlers } from '../route.js';

/** The ordered steps of a title, what people say of them, and looking a title up in the store. */
export const stepsHandlers = {
  steps: ({ params }, service) => service.stepsWork.steps(params.title),
  tick: ({ params, body, request }, service) => {
    const { who } = writerOf(service, request);
    return service.stepsWork.tick(params.title, body, who);
  },
  lookUp: ({ params }, service) => service.stepsWork.lookUp(params.title),
} satisfies Partial<Handlers>;
