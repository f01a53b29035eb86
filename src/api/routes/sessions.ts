import * as z from 'zod';
import { paths } from '../paths.js';
import { Session } from '../roles.js';
import { nothing, type RouteSpec } from './spec.js';

/** Sessions of the console. */
export const sessionRoutes = {
  session: {
    ...paths.session,
    summary: 'Who the service takes the caller for.',
    answer: Session,
  },
  signIn: {
    ...paths.signIn,
    summary: 'Opens a session for a token, as a cookie.',
    body: z.strictObject({ token: z.string().min(1).max(200) }),
    answer: Session,
  },
  signOut: { ...paths.signOut, summary: 'Ends the session.', answer: nothing },
} as const satisfies Record<string, RouteSpec>;
