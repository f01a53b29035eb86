import { withService, homeFolder } from '../connect.js';
import { CommandError, exit, type Io, type Paint, printJson } from '../io.js';
import { hostText, parseHost, SecretHosts, type ApprovedHost } from '../../disk/home/secret-hosts.js';
import { faultOfSecret, writeSecrets } from '../../disk/home/secrets-file.js';
import { readNamed } from '../read-file.js';

/** `syndexa secret list`: where each secret of the roster comes from, never its value. */
export function listSecrets(io: Io, paint: Paint, options: { json?: boolean }): Promise<number> {
  return withService(io, async (client) => {
    const secrets = await client.call('listSecrets');
    if (options.json) printJson(io, secrets);
    else if (secrets.length === 0) io.out('The roster names no secrets.\n');
    else
      for (const { name, from, fingerprint, usedBy, hosts } of secrets) {
        io.prose(
          `${from === 'nowhere' ? paint.red('□') : paint.green('●')} ${name}  ${from === 'nowhere' ? 'held nowhere' : `from the ${from}, fingerprint ${fingerprint ?? ''}`}  ${paint.dim(usedBy.join(', '))}\n`,
        );
        io.prose(
          hosts.length > 0
            ? `  may be sent to ${hosts.join(', ')}\n`
            : `  ${paint.yellow('may not be sent anywhere yet:')} syndexa secret allow ${name} --host HOST\n`,
        );
      }
    return exit.clean;
  });
}

/** `syndexa secret set NAME`: reads the secret from standard input, so that it is in no history of a shell. */
export async function setSecret(io: Io, paint: Paint, name: string): Promise<number> {
  refuseName(name);
  const asked = await io.ask(`${name}: `);
  const value = (asked ?? (await readNamed(io, '-'))).trim();
  const fault = faultOfSecret(value);
  if (fault !== undefined)
    throw new CommandError(fault, exit.wrongUse, 'Pass it as one line of printable characters.');
  const path = writeSecrets(homeFolder(io.env), new Map([[name, value]]));
  io.out(`${paint.green('✔')} ${name} is kept in ${path}, which only you can read.\n`);
  return exit.clean;
}

/** `syndexa secret unset NAME`. */
export function unsetSecret(io: Io, paint: Paint, name: string): Promise<number> {
  const path = writeSecrets(homeFolder(io.env), new Map([[name, null]]));
  io.out(`${paint.green('✔')} ${name} is out of ${path}.\n`);
  return Promise.resolve(exit.clean);
}

/** `syndexa secret allow NAME --host H`: lets a secret be sent to a host. Only the data folder can say so, no call. */
export function allowSecret(io: Io, paint: Paint, name: string, options: { host: string }): Promise<number> {
  const approved = approvedHost(name, options.host);
  new SecretHosts(homeFolder(io.env)).allow(approved);
  io.out(`${paint.green('✔')} ${name} may be sent to ${hostText(approved)}.\n`);
  return Promise.resolve(exit.clean);
}

/** `syndexa secret disallow NAME --host H`. */
export function disallowSecret(
  io: Io,
  paint: Paint,
  name: string,
  options: { host: string },
): Promise<number> {
  const approved = approvedHost(name, options.host);
  const hosts = new SecretHosts(homeFolder(io.env));
  if (!hosts.disallow(approved)) {
    const known = hosts.of(name).map(hostText).join(', ');
    throw new CommandError(
      `${name} is not allowed for ${hostText(approved)}.`,
      exit.wrongUse,
      known ? `It may be sent to ${known}.` : 'It may not be sent anywhere.',
    );
  }
  io.out(`${paint.green('✔')} ${name} is no longer sent to ${hostText(approved)}.\n`);
  return Promise.resolve(exit.clean);
}

function approvedHost(name: string, written: string): ApprovedHost {
  refuseName(name);
  const host = parseHost(written);
  if (!host)
    throw new CommandError(
      `${JSON.stringify(written)} is not a host.`,
      exit.wrongUse,
      'Name it without a scheme, such as inventory.marlstone.example. A private or loopback address needs its port: 127.0.0.1:4871.',
    );
  return { secret: name, ...host };
}

function refuseName(name: string): void {
  if (!/^[A-Z][A-Z0-9_]{1,60}$/.test(name))
    throw new CommandError(
      `${name} is not a valid name for a secret.`,
      exit.wrongUse,
      'Use capital letters, digits and underscores, such as COBALT_HERON_INVENTORY.',
    );
}
