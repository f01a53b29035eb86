import { expect, vi } from 'vitest';
import { partneredService, type TestPartner } from './partner.js';
import { http } from './service.js';
import { documentsIn, misshapen } from './shapes.js';
import { now, openShell, type Shell } from './shell.js';
import { kelp, placement } from './titles.js';

/**
 * Types commands, and compares all that they print with `printed/NAME.txt` beside the test. Each JSON document among it
 * must have its published shape.
 */
export async function typed(
  name: string,
  work: (shell: Shell) => Promise<void>,
  running?: Parameters<typeof openShell>[1],
): Promise<void> {
  // The client notes when it wrote into a tree.
  vi.useFakeTimers({ toFake: ['Date'], now: new Date(now) });
  const shell = await openShell({}, running);
  try {
    await work(shell);
    for (const [command, document] of documentsIn(shell.text))
      expect([command, misshapen(command, document)]).toEqual([command, []]);
    await expect(shell.text).toMatchFileSnapshot(`printed/${name}.txt`);
  } finally {
    await shell.stop();
    vi.useRealTimers();
  }
}

/** As `typed`, with a simulated partner at which Cobalt Heron has an account, and whose clock stands. */
export async function typedBesidePartner(
  name: string,
  work: (shell: Shell, partner: TestPartner) => Promise<void>,
): Promise<void> {
  const running = await partneredService(['cobalt-heron'], { service: { now: () => new Date(now) } });
  try {
    await running.partner.control('clock', { now, stands: true });
    await typed(name, (shell) => work(shell, running.partner), running);
  } finally {
    await running.stop();
  }
}

export const footer = placement('banner', 'CH-U-310772-BBBB1111', 'CH-U-310772-CCCC2222');

/** Puts a title on record before commands are typed. */
export async function recorded({ url }: Shell, changes: Parameters<typeof kelp>[0] = {}): Promise<void> {
  const title = kelp({ placements: { footer }, ...changes });
  const { status, text } = await http(`${url}/api/v1/titles`, 'POST', { id: 'kelp', title });
  if (status !== 201) throw new Error(text);
}
