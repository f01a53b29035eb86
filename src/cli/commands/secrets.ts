import { withService, homeFolder } from '../connect.js';
import { CommandError, exit, type Io, type Paint } from '../io.js';
import { writeSecrets } from '../secrets-file.js';
import { readNamed } from './roster.js';

/** `syndexa secret list`: where each secret of the roster comes from; never what it is. */
export function listSecrets(io: Io, paint: Paint, options: { json?: boolean }): Promise<number> {
  return withService(io, async (client) => {
    const secrets = await client.call('listSecrets');
    if (options.json) io.out(`${JSON.stringify(secrets, null, 2)}\n`);
    else if (secrets.length === 0) io.out('The roster names no secrets.\n');
    else
      for (const { name, from, fingerprint, usedBy } of secrets)
        io.out(
          `${from === 'nowhere' ? paint.red('□') : paint.green('●')} ${name}  ${from === 'nowhere' ? 'held nowhere' : `from the ${from}, fingerprint ${fingerprint ?? ''}`}  ${paint.dim(usedBy.join(', '))}\n`,
        );
    return exit.clean;
  });
}

/** `syndexa secret set NAME`: reads the secret from standard input, so that it stands in no history of a shell. */
export async function setSecret(io: Io, paint: Paint, name: string): Promise<number> {
  if (!/^[A-Z][A-Z0-9_]{1,60}$/.test(name))
    throw new CommandError(
      `${name} is no name for a secret.`,
      exit.wrongUse,
      'Use capital letters, digits and underscores, such as COBALT_HERON_INVENTORY.',
    );
  const asked = await io.ask(`${name}: `);
  const value = (asked ?? (await readNamed(io, '-'))).trim();
  if (value === '' || /[\r\n]/.test(value))
    throw new CommandError(
      'The secret is empty, or has several lines.',
      exit.wrongUse,
      'Give it as one line.',
    );
  const path = writeSecrets(homeFolder(io.env), { [name]: value });
  io.out(`${paint.green('✔')} ${name} is kept in ${path}, which only you can read.\n`);
  return exit.clean;
}

/** `syndexa secret unset NAME`. */
export function unsetSecret(io: Io, paint: Paint, name: string): Promise<number> {
  const path = writeSecrets(homeFolder(io.env), { [name]: null });
  io.out(`${paint.green('✔')} ${name} is out of ${path}.\n`);
  return Promise.resolve(exit.clean);
}
