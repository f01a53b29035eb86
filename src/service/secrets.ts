import { valueAt } from '../core/text/own-values.js';
import { createHash } from 'node:crypto';
import { readFileSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { inspect } from 'node:util';
import { SecretHosts } from '../disk/home/secret-hosts.js';
import { faultOfSecret, secretsFile } from '../disk/home/secrets-file.js';
import type { NamedHost } from '../api/outgoing.js';
import { SecretCleaner } from './secret-cleaner.js';
import { ServiceError } from './errors.js';

/** A secret in use. Whatever prints it prints its fingerprint; `reveal` is for the one call that needs it. */
export class Secret {
  readonly #value: string;

  constructor(
    readonly name: string,
    value: string,
    readonly from: 'environment' | 'file',
  ) {
    this.#value = value;
  }

  reveal(): string {
    return this.#value;
  }

  /** Tells two secrets apart without telling what they are. */
  get fingerprint(): string {
    return createHash('sha256').update(`syndexa:${this.name}:${this.#value}`).digest('hex').slice(0, 8);
  }

  toString(): string {
    return `secret:${this.name} (${this.fingerprint})`;
  }

  toJSON(): string {
    return this.toString();
  }

  [inspect.custom](): string {
    return this.toString();
  }
}

/** Finds secrets by name: in the environment as SYNDEXA_SECRET_NAME, else in a file that only its owner reads. */
export class Secrets {
  constructor(
    private readonly home: string,
    private readonly env: Readonly<Record<string, string | undefined>>,
  ) {}

  /** A secret by its reference; undefined when nothing holds it. */
  find(reference: string): Secret | undefined {
    const name = reference.replace(/^secret:/, '');
    const given = valueAt(this.env, `SYNDEXA_SECRET_${name}`);
    if (given !== undefined && given !== '') return new Secret(name, given, 'environment');
    const stored = this.file().get(name);
    return stored === undefined ? undefined : new Secret(name, stored, 'file');
  }

  /** The hosts to which the owner lets a secret be sent. */
  hosts(name: string): NamedHost[] {
    return new SecretHosts(this.home).of(name);
  }

  /** Takes every secret that is known now out of text. */
  cleaner(): (text: string) => string {
    const known = new Map<string, string>();
    for (const [name, value] of Object.entries(this.env))
      if (name.startsWith('SYNDEXA_SECRET_') && value) known.set(name.slice('SYNDEXA_SECRET_'.length), value);
    try {
      for (const [name, value] of this.file()) known.set(name, value);
    } catch {
      // A file that others can read is not used, so nothing of it can have gone out.
    }
    const cleaner = new SecretCleaner(known);
    return (text) => cleaner.clean(text);
  }

  /** As `find`, with an error that says where to put it. */
  get(reference: string): Secret {
    const found = this.find(reference);
    const name = reference.replace(/^secret:/, '');
    const fault = found && faultOfSecret(found.reveal());
    if (fault !== undefined)
      throw new ServiceError('secret-missing', `${name} cannot be sent. ${fault}`, {
        fix: `Set it again: syndexa secret set ${name}.`,
      });
    if (found) return found;
    throw new ServiceError('secret-missing', `There is no value for the secret ${name}.`, {
      fix: `Set SYNDEXA_SECRET_${name} for the service, or store it in ${join(this.home, secretsFile)} with syndexa secret set ${name}.`,
    });
  }

  private file(): Map<string, string> {
    const path = join(this.home, secretsFile);
    let text: string;
    try {
      const mode = statSync(path).mode & 0o777;
      if ((mode & 0o077) !== 0)
        throw new ServiceError(
          'secret-missing',
          `${path} can be read by others (mode ${mode.toString(8)}), so it is not used.`,
          { fix: `chmod 600 ${path}` },
        );
      text = readFileSync(path, 'utf8');
    } catch (error) {
      if (error instanceof ServiceError) throw error;
      return new Map();
    }
    return new Map(
      text.split(/\r?\n/).flatMap((line) => {
        const match = /^\s*([A-Z][A-Z0-9_]*)\s*=\s*(.*?)\s*$/.exec(line);
        return match?.[1] && match[2] ? [[match[1], match[2]] as const] : [];
      }),
    );
  }
}
