import type { Router } from 'express';
import { writerOf, type ServiceContext } from '../context.js';
import { bind } from '../route.js';
import { StepsWork } from '../steps-work.js';

/** The ordered steps of a title, what people say of them, and looking a title up in the store. */
export function stepsRoutes(router: Router, context: ServiceContext): void {
  const work = new StepsWork(context);
  bind(router, 'steps', ({ params }) => work.steps(params.title ?? ''));
  bind(router, 'tick', ({ params, body, request }) => {
    const { who } = writerOf(context, request);
    return work.tick(params.title ?? '', body, who);
  });
  bind(router, 'lookUp', ({ params }) => work.lookUp(params.title ?? ''));
}
