/** Everything that the partner refuses: the status, and whether asking again helps. */
export const refusals = {
  'key-missing': 401,
  'key-unknown': 401,
  'credential-missing': 401,
  'not-found': 404,
  'app-unknown': 422,
  'identifier-taken': 409,
  'identifier-held': 409,
  'name-missing': 422,
  'platform-unknown': 422,
  'format-unknown': 422,
  'format-not-offered': 422,
  'content-missing': 422,
  'content-unknown': 422,
  'refresh-out-of-bounds': 422,
  'reward-missing': 422,
  'setting-refused': 422,
  'key-reused': 409,
  unreadable: 400,
  'terms-open': 403,
  'unit-paused': 403,
  'unit-too-new': 409,
  'unit-elsewhere': 409,
  'format-wrong': 409,
  'currency-unknown': 422,
  'asset-unknown': 422,
  'app-unlisted': 403,
  'audience-refused': 403,
  'account-suspended': 403,
  'event-repeated': 409,
  'site-unknown': 404,
  'site-unreachable': 502,
} as const;
export type RefusalCode = keyof typeof refusals;

/** What the partner answers when it refuses: a code, words, and the field where there is one. */
export class Refusal extends Error {
  constructor(
    readonly code: RefusalCode,
    message: string,
    readonly more: Record<string, unknown> = {},
  ) {
    super(message);
    this.name = 'Refusal';
  }

  get status(): number {
    return refusals[this.code];
  }

  body(): { error: Record<string, unknown> } {
    return { error: { code: this.code, message: this.message, ...this.more } };
  }
}
