import { entryAt, putAt } from '../../core/text/own-values.js';
import type { Publisher } from '../../core/roster/model.js';
import { withService } from '../connect.js';
import { CommandError, exit, type Io, type Paint, printJson } from '../io.js';

/** `syndexa publisher show`. */
export function showPublisher(io: Io, options: { json?: boolean }): Promise<number> {
  return withService(io, async (client) => {
    const publisher = await client.call('showPublisher');
    if (options.json) printJson(io, publisher);
    else if (!publisher) io.out('No publisher yet: syndexa publisher set --name NAME --domain DOMAIN\n');
    else {
      io.out(`${publisher.name}  ${publisher.domain}\n`);
      for (const [network, account] of Object.entries(publisher.accounts ?? {}))
        io.out(`  account at ${network}: ${account}\n`);
      for (const [network, credentials] of Object.entries(publisher.credentials ?? {}))
        for (const [name, reference] of Object.entries(credentials))
          io.out(`  ${network}.${name}: ${reference}\n`);
    }
    return exit.clean;
  });
}

/** `syndexa publisher set`: what is given is changed, the rest stays. */
export function setPublisher(
  io: Io,
  paint: Paint,
  options: { name?: string; domain?: string; account?: string[]; credential?: string[]; json?: boolean },
): Promise<number> {
  return withService(io, async (client) => {
    const { answer: before, etag } = await client.callWithVersion('showPublisher');
    const name = options.name ?? before?.name;
    const domain = options.domain ?? before?.domain;
    if (name === undefined || domain === undefined)
      throw new CommandError(
        'A publisher needs a name and a domain.',
        exit.wrongUse,
        'Use --name "Saltmarsh Software" --domain saltmarsh.example.',
      );
    const accounts = { ...before?.accounts, ...pairs('--account', options.account) };
    const credentials = structuredClone(before?.credentials ?? {});
    for (const [spot, reference] of Object.entries(pairs('--credential', options.credential))) {
      const [network = '', credential = ''] = spot.split('.');
      putAt(
        entryAt(credentials, network, () => ({})),
        credential,
        reference,
      );
    }
    const publisher: Publisher = {
      name,
      domain,
      ...(Object.keys(accounts).length > 0 ? { accounts } : {}),
      ...(Object.keys(credentials).length > 0 ? { credentials } : {}),
    };
    const saved = await client.call('setPublisher', {
      body: publisher,
      headers: before ? { 'If-Match': etag } : { 'If-None-Match': '*' },
    });
    if (options.json) printJson(io, saved);
    else io.out(`${paint.green('✔')} ${name} (${domain})\n`);
    return exit.clean;
  });
}

function pairs(option: string, words: readonly string[] | undefined): Record<string, string> {
  return Object.fromEntries(
    (words ?? []).map((word) => {
      const at = word.indexOf('=');
      if (at > 0) return [word.slice(0, at), word.slice(at + 1)];
      throw new CommandError(`${option} takes NAME=VALUE, not “${word}”.`, exit.wrongUse);
    }),
  );
}
