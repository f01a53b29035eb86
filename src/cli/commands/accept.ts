import type { Acceptance } from '../../core/checks/accepted.js';
import { withService } from '../connect.js';
import { CommandError, exit, type Io, type Paint, printJson } from '../io.js';

export interface AcceptOptions {
  title: string;
  reason?: string;
  until?: string;
  withdraw?: boolean;
  list?: boolean;
  json?: boolean;
}

/** `syndexa accept [FINGERPRINT]`. */
export function accept(
  io: Io,
  paint: Paint,
  fingerprint: string | undefined,
  options: AcceptOptions,
): Promise<number> {
  return withService(io, async (client) => {
    const { title, reason, until } = options;
    const params = { title, fingerprint: fingerprint ?? '' };
    if (fingerprint === undefined && !options.list)
      throw new CommandError(
        'Which finding should be accepted?',
        exit.wrongUse,
        'Name its fingerprint, as syndexa check prints it, or list accepted findings: --list.',
      );
    if (fingerprint !== undefined && !options.withdraw && !options.list && (!reason || !until))
      throw new CommandError(
        'An acceptance needs a reason and a last day.',
        exit.wrongUse,
        'Add --reason "why it is acceptable" --until 2027-03-31.',
      );
    const answer =
      options.list || fingerprint === undefined
        ? await client.call('listAccepted', { params })
        : options.withdraw
          ? await client.call('withdraw', { params })
          : await client.call('accept', {
              params,
              body: { fingerprint, reason: reason ?? '', until: until ?? '' },
            });
    if (options.json) printJson(io, answer);
    else io.out(acceptedText(answer.acceptances, paint));
    return exit.clean;
  });
}

function acceptedText(acceptances: readonly Acceptance[], paint: Paint): string {
  if (acceptances.length === 0) return 'Nothing is accepted.\n';
  return acceptances
    .map(
      ({ fingerprint, rule, message, reason, until, who }) =>
        `${paint.bold(rule)}  ${paint.dim(fingerprint)}\n  ${message}\n  accepted until ${until} by ${who}: ${reason}\n`,
    )
    .join('\n');
}
