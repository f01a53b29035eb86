import { withService } from '../connect.js';
import { exit, type Io, type Paint } from '../io.js';
import { readNamed } from './roster.js';

/** `syndexa network list`. */
export function listNetworks(io: Io, paint: Paint, options: { json?: boolean }): Promise<number> {
  return withService(io, async (client) => {
    const networks = await client.call('listNetworks');
    if (options.json) io.out(`${JSON.stringify(networks, null, 2)}\n`);
    else
      for (const { id, name, about, formats, platforms } of networks)
        io.out(
          `${paint.bold(id)}  ${name}\n  ${about}\n  ${formats.join(', ')} on ${platforms.join(', ')}\n\n`,
        );
    return exit.clean;
  });
}

/** `syndexa network show ID`: the profile as it is written, comments and all. */
export function showNetwork(io: Io, network: string, options: { json?: boolean }): Promise<number> {
  return withService(io, async (client) => {
    const found = await client.call('showNetwork', { params: { network } });
    io.out(options.json ? `${JSON.stringify(found.profile, null, 2)}\n` : found.source);
    return exit.clean;
  });
}

/** `syndexa network lint FILE…`. */
export function lintNetworks(
  io: Io,
  paint: Paint,
  files: readonly string[],
  options: { json?: boolean },
): Promise<number> {
  return withService(io, async (client) => {
    const results = [];
    for (const file of files)
      results.push({
        file,
        ...(await client.call('lintNetwork', { body: { text: await readNamed(io, file) } })),
      });
    if (options.json) io.out(`${JSON.stringify(results, null, 2)}\n`);
    else {
      for (const { file, ok, id, problems } of results) {
        if (ok) io.out(`${paint.green('✔')} ${file}: the profile of ${id} is right\n`);
        for (const { field, message, fix, place } of problems) {
          io.out(
            `${paint.red('■')} ${file}:${place?.line ?? 1}:${place?.column ?? 1}  ${field || 'document'}: ${message}${fix ? ` ${fix}` : ''}\n`,
          );
        }
      }
    }
    return results.every(({ ok }) => ok) ? exit.clean : exit.findings;
  });
}
