import { valueAt } from '../../text/own-values.js';
import type { StepDefinition } from '../model.js';

/** An account, and the key that opens its list. */
export const register: StepDefinition = {
  id: 'register',
  name: 'Register with the network',
  requires: [],
  per: 'network',
  look(context) {
    const { profile, key, inventory } = context;
    const http = profile.inventory?.http;
    if (!http)
      return {
        state: 'cannot-tell',
        why: `${profile.name} cannot be asked; whether there is an account only a person knows.`,
        ...(profile.site === undefined ? {} : { page: profile.site }),
      };
    const label = valueAt(profile.credentials, http.key)?.label ?? http.key;
    if (inventory?.source === 'http')
      return {
        state: 'done',
        why: `${profile.name} answered with its list.`,
        evidence: [{ what: `read ${inventory.readAt}`, place: null }],
      };
    if (key?.held)
      return {
        state: 'done',
        why: `Its ${label} is at hand.`,
        evidence: [{ what: key.reference, place: null }],
      };
    if (key)
      return {
        state: 'to-do',
        why: `The roster names ${key.reference}, which nothing holds.`,
        command: `syndexa secret set ${key.reference.replace(/^secret:/, '')}`,
      };
    return {
      state: 'to-do',
      mayBeUnseen: true,
      why: `The roster does not say which secret is its ${label}.`,
      command: `syndexa publisher set --credential ${profile.id}.${http.key}=secret:NAME`,
      ...(profile.site === undefined ? {} : { page: profile.site }),
    };
  },
};
