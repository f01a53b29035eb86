import type { Handlers, OpenRoute } from '../route.js';

/** Who is signed in, signing in, and signing out. */
export const sessionHandlers = {
  session: ({ request, response }, { access }) => access.session(request, response),
  signIn: ({ body, request, response }, { access }) => access.signIn(request, response, body.token),
  signOut: ({ request, response }, { access }) => {
    access.signOut(request, response);
    return {};
  },
} satisfies Pick<Handlers, OpenRoute>;
