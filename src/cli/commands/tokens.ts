import type { OpenTokens } from '../../service/access/open-tokens.js';
import type { Role, TokenEntry } from '../../api/roles.js';
import { homeFolder } from '../connect.js';
import { CommandError, exit, type Io, type Paint, printJson } from '../io.js';
import { plainTable } from '../render/table.js';

// Tokens are kept in the data folder: who can write to it decides who may use the service, and no call can.

/** `syndexa token add NAME --role ROLE`. */
export async function addToken(
  io: Io,
  paint: Paint,
  name: string,
  { role, json }: { role: Role; json?: boolean },
): Promise<number> {
  if (!/^[a-z0-9][a-z0-9._-]{0,59}$/.test(name))
    throw new CommandError(
      `${JSON.stringify(name)} is not a valid name for a token.`,
      exit.wrongUse,
      'Use small letters, digits, dots, dashes and underscores, such as build-server.',
    );
  const token = await withTokens(io, (tokens) => tokens.add(name, role));
  if (token === undefined)
    throw new CommandError(
      `There is a token ${name} already.`,
      exit.refused,
      `Revoke it first (syndexa token revoke ${name}), or choose another name.`,
    );
  if (json) printJson(io, { name, role, token });
  else {
    io.out(`${token}\n`);
    io.err(
      `${paint.green('✔')} This is the token of ${name} (${role}). It is shown only once; pass it on through a channel that you trust.\n` +
        '  The client reads it from SYNDEXA_TOKEN; the console asks for it when it opens.\n',
    );
  }
  return exit.clean;
}

/** `syndexa token list`. */
export async function listTokens(io: Io, paint: Paint, options: { json?: boolean }): Promise<number> {
  const all = await withTokens(io, (tokens) => tokens.list());
  if (options.json) printJson(io, all);
  else if (all.length === 0) io.out('There are no tokens yet: syndexa token add NAME --role viewer\n');
  else io.out(`${tokensTable(all, paint, io.columns)}\n`);
  return exit.clean;
}

function tokensTable(all: readonly TokenEntry[], paint: Paint, width: number): string {
  const minute = (at: string | null) => (at === null ? 'never' : at.replace('T', ' ').slice(0, 16));
  const rows = all.map(({ name, role, createdAt, lastUsedAt, revokedAt }) => [
    name,
    role,
    minute(createdAt),
    minute(lastUsedAt),
    revokedAt === null ? '' : paint.red(`revoked ${minute(revokedAt)}`),
  ]);
  return plainTable({ head: ['name', 'role', 'made', 'last used', ''], rows }, width);
}

/** `syndexa token revoke NAME`. */
export async function revokeToken(io: Io, paint: Paint, name: string): Promise<number> {
  if (!(await withTokens(io, (tokens) => tokens.revoke(name))))
    throw new CommandError(
      `There is no token ${name} in use.`,
      exit.wrongUse,
      'syndexa token list shows them.',
    );
  io.out(`${paint.green('✔')} The token of ${name} is revoked.\n`);
  return exit.clean;
}

/** Opens the tokens of the data folder for a moment. */
async function withTokens<Result>(io: Io, work: (tokens: OpenTokens['tokens']) => Result): Promise<Result> {
  const { openTokens } = await import('../../service/boot.js');
  const { tokens, close, narrowed } = openTokens(homeFolder(io.env));
  for (const says of narrowed) io.err(`▲ ${says}\n`);
  try {
    return work(tokens);
  } finally {
    close();
  }
}
