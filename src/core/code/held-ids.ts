import { both, either, type Compiled } from '../syntax/compiled.js';
import { languageOf } from '../languages/index.js';
import type { Tree } from '../tree/tree.js';
import { maxUses, nameUses, type NameUse } from './name-uses.js';
import { stringAt } from './shared-names.js';
import { codeOf, readingOf, type CodeFile } from './source-files.js';
import { surroundings } from './surroundings.js';
import type { Condition, SourceHolder, SourceString } from './source-reading.js';

/** Through how many names a table is followed. */
const maxThrough = 3;

/** Keys that name a platform or a stage; other keys of a table name placements. */
const sideKey = /android|ios|apple|iphone|debug|release|prod|dev|test|stag|sample|live/i;

/**
 * Weighs IDs that code holds under names: a constant, a function, a type, the key of a table. Such an ID is used in a
 * variant where something uses the name under conditions that the variant meets. Names that nothing uses tell nothing.
 */
export class HeldIds {
  private readonly known = new Map<string, Compiled>();
  private readonly seen = new Map<string, readonly NameUse[]>();
  private readonly entries = new Map<string, Compiled>();
  private readonly module: readonly CodeFile[];

  constructor(
    private readonly tree: Tree,
    private readonly file: CodeFile,
  ) {
    this.module = file.siblings ?? [file];
  }

  /** Whether a variant uses what a literal says: `unknown` where reading cannot tell. */
  state(literal: SourceString, variant: string): Compiled {
    const reading = readingOf(this.tree, this.file.path);
    const around = surroundings(reading).holders(literal);
    let state: Compiled = 'yes';
    for (const [at, holder] of around.entries()) {
      if (holder.is === 'key' || state === 'no') continue;
      // The keys of what is held directly: those within another name are that one's.
      const inner = around.findIndex(({ is }, next) => next > at && is === 'name');
      const keys = around.slice(at, inner < 0 ? undefined : inner).filter(({ is }) => is === 'key');
      // An argument of a call is used in place, whatever the name of the method around it.
      const isHanded = literal.flow?.into === 'argument' && keys.length === 0;
      if (isHanded && holder.isType !== true) continue;
      state = both(state, this.used(holder, keys, variant));
    }
    return state;
  }

  private used(holder: SourceHolder, keys: readonly SourceHolder[], variant: string): Compiled {
    const written = keys.map(({ name }) => name);
    const uses = this.usesOf(holder, this.file);
    // All holders of a name share one list of its uses, unless a holder uses its own name.
    const own = uses === this.allUsesOf(holder.name, this.file) ? '' : String(holder.start);
    const key = JSON.stringify([variant, holder.name, own, ...written]);
    const known = this.known.get(key);
    if (known !== undefined) return known;
    const state = this.usedIn(uses, written, variant, 0);
    this.known.set(key, state);
    return state;
  }

  private usedIn(
    uses: readonly NameUse[],
    keys: readonly string[],
    variant: string,
    depth: number,
  ): Compiled {
    if (uses.length === 0) return 'yes';
    let state: Compiled = uses.length > maxUses ? 'unknown' : 'no';
    for (const use of uses) {
      const { file, start, end } = use;
      const here = file.compiled(variant, start, this.conditionsAt(use));
      const led = here === 'no' ? here : this.led(use, end, keys, variant, depth);
      state = either(state, both(here, both(this.entered(file), led)));
      if (state === 'yes') break;
    }
    return state;
  }

  /** Which of several entry points a variant is built from is not known here. */
  private entered({ path }: CodeFile): Compiled {
    const known = this.entries.get(path);
    if (known !== undefined) return known;
    const entry = entryOf(this.tree, path);
    const hasOthers = () => this.module.some((file) => entryOf(this.tree, file.path) === 'other');
    const state: Compiled = entry === 'other' || (entry === 'usual' && hasOthers()) ? 'unknown' : 'yes';
    this.entries.set(path, state);
    return state;
  }

  /** Whether a use reaches the value: through the keys after it, then through the uses of the name that contains it. */
  private led(use: NameUse, from: number, keys: readonly string[], variant: string, depth: number): Compiled {
    const [key, ...further] = keys;
    const { file } = use;
    const text = this.tree.text(file.path)?.text ?? '';
    const index = key === undefined ? undefined : indexAt(text, from);
    if (key !== undefined && index)
      return both(
        this.isKey(use, index.written, key, variant),
        this.led(use, index.end, further, variant, depth),
      );
    // `unit` of `get footer => unit`, `ids` of `const ids = __DEV__ ? test : production`: it is an alias of another
    // name.
    const around = surroundings(readingOf(this.tree, file.path)).holders(use);
    const through = around.findLast(({ is, isType }) => is === 'name' && isType !== true);
    if (through && depth < maxThrough) {
      const uses = this.usesOf(through, file);
      const held = around.flatMap(({ is, name, start }) =>
        is === 'key' && through.start <= start ? [name] : [],
      );
      if (uses.length > 0) return this.usedIn(uses, [...held, ...keys], variant, depth + 1);
    }
    return keys.some((one) => sideKey.test(one)) ? 'unknown' : 'yes';
  }

  /** Whether an index, as written, is a key in a variant. */
  private isKey(use: NameUse, index: string, key: string, variant: string): Compiled {
    const [wanted, given] = [plainKey(key), plainKey(index)];
    if (given.isPlain) return given.text === wanted.text ? 'yes' : 'no';
    const { file, start: at } = use;
    const conditions = this.conditionsAt(use);
    const weigh = (text: string): Compiled => {
      const holds = file.compiled(variant, at, [...conditions, { text, holds: true }]);
      const fails = file.compiled(variant, at, [...conditions, { text, holds: false }]);
      // A key that names a placement does not depend on the platform or the stage.
      return holds === fails ? (sideKey.test(wanted.text) ? 'unknown' : 'yes') : holds;
    };
    const choice = /^\(?([^?]+)\?([^?:]+):([^?:]+?)\)?$/.exec(given.text);
    if (choice) {
      const [, condition = '', then = '', otherwise = ''] = choice;
      if (plainKey(then).text === wanted.text) return weigh(condition.trim());
      return plainKey(otherwise).text === wanted.text ? weigh(`!(${condition.trim()})`) : 'no';
    }
    const reading = readingOf(this.tree, file.path);
    const values = reading.constants.get(given.text) ?? [];
    if (values.length > 0 && values.every(({ is }) => is === 'text')) {
      const same = values.filter((one) => one.is === 'text' && one.value === wanted.text);
      return same.reduce<Compiled>((state, { start }) => {
        const under = stringAt(reading, start)?.context.conditions ?? [];
        return either(state, file.compiled(variant, start, under));
      }, 'no');
    }
    return weigh(`${given.text} == ${wanted.isQuoted ? `'${wanted.text}'` : key}`);
  }

  private conditionsAt(use: NameUse): Condition[] {
    const around = surroundings(readingOf(this.tree, use.file.path));
    return around.stretches(use).map(({ condition }) => condition);
  }

  /** Where the files of the module use what a holder holds, but within itself. */
  private usesOf({ name, start, end }: SourceHolder, home: CodeFile): readonly NameUse[] {
    const all = this.allUsesOf(name, home);
    const isOutside = (use: NameUse) => use.file.path !== home.path || use.start < start || use.start >= end;
    return all.every(isOutside) ? all : all.filter(isOutside);
  }

  private allUsesOf(name: string, home: CodeFile): readonly NameUse[] {
    const key = `${home.path} ${name}`;
    let uses = this.seen.get(key);
    if (!uses) {
      const all = nameUses(this.tree, this.module).get(name) ?? [];
      const isPrivate = languageOf(home.path)?.isPrivate?.(name, codeOf(this.tree, home.path)) === true;
      uses = isPrivate ? all.filter(({ file }) => file.path === home.path) : all;
      this.seen.set(key, uses);
    }
    return uses;
  }
}

function entryOf(tree: Tree, path: string): 'usual' | 'other' | undefined {
  return languageOf(path)?.entry?.(path, codeOf(tree, path));
}

/** The index that follows a table: `["footer"]`, `.get("footer")`, `.footer`. */
function indexAt(text: string, from: number): { written: string; end: number } | undefined {
  // `(kReleaseMode ? production : sample)[…]`: the index is that of the whole choice.
  const branch =
    /^\s*(?::[\w\s.]+)?\)(?=\s*[!?]*\s*[.[])/.exec(text.slice(from, from + 300))?.[0].length ?? 0;
  if (branch > 0) return indexAt(text, from + branch);
  const rest = text.slice(from, from + 300);
  const open = /^\s*[!?]*\s*(?:\.?\[|\.(?:get|getValue|getOrDefault)\s*\()/.exec(rest)?.[0];
  if (open !== undefined) {
    let depth = 1;
    for (let at = open.length; at < rest.length; at++) {
      if (/[[(]/.test(rest[at] ?? '')) depth++;
      if (/[\])]/.test(rest[at] ?? '') && --depth === 0)
        return { written: rest.slice(open.length, at), end: from + at + 1 };
    }
    return undefined;
  }
  const member = /^\s*[!?]*\.([A-Za-z_$][\w$]*)(?![\w$(])/.exec(rest);
  return member ? { written: `'${member[1]}'`, end: from + member[0].length } : undefined;
}

/** A key without quotes, brackets and casts. */
function plainKey(written: string): { text: string; isPlain: boolean; isQuoted: boolean } {
  const text = written
    .trim()
    .replace(/\s+as\s+.*$/s, '')
    .replace(/^\[\s*(.*?)\s*\]$/s, '$1')
    .replace(/[!?]+$/, '');
  const quoted = /^@?(["'])(.*)\1$/s.exec(text)?.[2];
  const isQuoted = quoted !== undefined || /^[a-z_]\w*$/.test(text);
  return { text: quoted ?? text, isPlain: quoted !== undefined, isQuoted };
}
