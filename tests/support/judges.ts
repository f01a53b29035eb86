import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { parseAllDocuments } from 'yaml';

/** Readers of others, by the endings of the files that they can judge. Each throws on a file that it cannot read. */
const judges: { endings: RegExp; program?: string; judge: (content: Buffer) => void }[] = [
  {
    endings: /\.(xml|csproj|props|targets|xaml|config|storyboard|xib)$/i,
    program: '/usr/bin/xmllint',
    judge: (input) => execFileSync('/usr/bin/xmllint', ['--noout', '--nonet', '-'], { input, stdio: 'pipe' }),
  },
  {
    endings: /\.(plist|xcprivacy|entitlements)$/i,
    program: '/usr/bin/plistutil',
    judge: (content) =>
      inFile(content, (file) => {
        // It ends with 0 whatever it thinks of a file, and writes nothing binary of one that it cannot read.
        const read = execFileSync('/usr/bin/plistutil', ['-i', file, '-f', 'bin'], { stdio: 'pipe' });
        if (!read.toString('latin1').startsWith('bplist00')) throw new Error('plistutil cannot read it.');
      }),
  },
  {
    endings: /\.pbxproj$/,
    program: '/usr/bin/plparse',
    judge: (content) =>
      inFile(content, (file) => execFileSync('/usr/bin/plparse', [file], { stdio: 'pipe' })),
  },
  { endings: /\.json$/i, judge: (content) => JSON.parse(content.toString('utf8').replace(/^\ufeff/, '')) },
  {
    endings: /\.ya?ml$/i,
    judge(content) {
      for (const { errors } of parseAllDocuments(content.toString('utf8'))) if (errors[0]) throw errors[0];
    },
  },
];

/** What was judged already: the same small files come again in many tests. */
const known = new Map<string, string | null>();

function inFile(content: Buffer, work: (file: string) => unknown): void {
  const folder = mkdtempSync(join(tmpdir(), 'syndexa-judge-'));
  try {
    const file = join(folder, 'file');
    writeFileSync(file, content);
    work(file);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/**
 * What an independent reader says against a file; null if it reads it, and for files that no reader on this machine
 * knows.
 */
export function complaint(path: string, content: string | Uint8Array): string | null {
  const bytes = Buffer.from(content);
  const own = judges.find(({ endings }) => endings.test(path));
  if (!own || (own.program !== undefined && !existsSync(own.program))) return null;
  const key = `${own.endings.source} ${bytes.toString('latin1')}`;
  const before = known.get(key);
  if (before !== undefined) return before;
  let said: string | null = null;
  try {
    own.judge(bytes);
  } catch (error) {
    said = error instanceof Error ? error.message : String(error);
  }
  known.set(key, said);
  return said;
}
