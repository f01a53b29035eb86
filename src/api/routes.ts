import type * as z from 'zod';
import { networkRoutes } from './routes/networks.js';
import { overviewRoutes } from './routes/overview.js';
import { rehearsalRoutes } from './routes/rehearsals.js';
import { rosterRoutes } from './routes/roster.js';
import { sessionRoutes } from './routes/sessions.js';
import type { RouteSpec } from './routes/spec.js';
import { standardRoutes } from './routes/standards.js';
import { tallyRoutes } from './routes/tally.js';
import { titleRoutes } from './routes/titles.js';
import { treeRoutes } from './routes/trees.js';

export type { RouteSpec } from './routes/spec.js';

/** Every call of the HTTP interface. The OpenAPI document keeps this order. */
export const routes = {
  ...sessionRoutes,
  ...overviewRoutes,
  ...titleRoutes,
  ...rosterRoutes,
  ...networkRoutes,
  ...standardRoutes,
  ...treeRoutes,
  ...rehearsalRoutes,
  ...tallyRoutes,
} as const satisfies Record<string, RouteSpec>;

export type Routes = typeof routes;
export type RouteName = keyof Routes;
/** Parsed answer of a route. */
export type AnswerOf<Name extends RouteName> = z.infer<Routes[Name]['answer']>;
/** Body of a route, as a client sends it. */
export type BodyOf<Name extends RouteName> = Routes[Name] extends { body: infer Body extends z.ZodType }
  ? z.input<Body>
  : undefined;
/** Body of a route, as the service sees it after parsing. */
export type ParsedBody<Name extends RouteName> = Routes[Name] extends { body: infer Body extends z.ZodType }
  ? z.output<Body>
  : undefined;
export type QueryOf<Name extends RouteName> = Routes[Name] extends { query: infer Query extends z.ZodType }
  ? z.input<Query>
  : undefined;
export type ParsedQuery<Name extends RouteName> = Routes[Name] extends {
  query: infer Query extends z.ZodType;
}
  ? z.output<Query>
  : undefined;
/** Routes whose answers are lists in pages. */
export type PagedRoute = {
  [Name in RouteName]: Routes[Name] extends { paged: true } ? Name : never;
}[RouteName];
