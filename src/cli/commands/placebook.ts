import { withService } from '../connect.js';
import { exit, type Io, type Paint, printJson } from '../io.js';
import { callFollowed } from '../progress.js';
import { sendTree } from '../send-tree.js';
import type { TreeOptions } from './trees.js';
import { settleInterruptedWrite, show } from './wire.js';

export interface PlacebookOptions extends TreeOptions {
  check?: boolean;
  write?: boolean;
  full?: boolean;
  force?: boolean;
}

/** `syndexa placebook DIR [--check] [--write]`. */
export function placebook(
  io: Io,
  paint: Paint,
  directory: string,
  options: PlacebookOptions,
): Promise<number> {
  return withService(io, async (client) => {
    if (options.write) await settleInterruptedWrite(io, directory);
    const { snapshot, folder } = await sendTree(client, io, directory);
    const groups = ['android/all/placebook', 'ios/all/placebook'];
    const call = {
      params: { snapshot },
      body: { title: options.title ?? null, choice: { groups } },
    };
    const wiring = await callFollowed(io, client, 'wire', call, 'working out the edits');
    if (!options.check) {
      const again = `syndexa placebook ${directory} --title ${wiring.title} --write`;
      return show({ io, paint, client, directory, folder }, wiring, options, [], again);
    }
    const files = wiring.edits.map(({ path, before, remove }) => ({
      path,
      state: before === null ? 'missing' : remove ? 'in the way' : 'out of date',
    }));
    if (options.json) printJson(io, { title: wiring.title, current: files.length === 0, files });
    else {
      const { placebookText } = await import('../render/undo.js');
      io.out(placebookText(files, `syndexa placebook ${directory} --title ${wiring.title} --write`, paint));
    }
    return files.length === 0 ? exit.clean : exit.findings;
  });
}
