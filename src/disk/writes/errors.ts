import { printableName } from '../../core/text/printable.js';

/** A file is not what the edits were made for, or another command is writing to the tree. */
export class FileChangedError extends Error {
  constructor(readonly paths: string[]) {
    super(`Changed in the meantime: ${paths.map(printableName).join(', ')}.`);
    this.name = 'FileChangedError';
  }
}

/** Another command holds the tree. */
export class TreeBusyError extends FileChangedError {
  constructor() {
    super([]);
    this.message = 'Another command is writing to this tree.';
    this.name = 'TreeBusyError';
  }
}

/** A write was refused for a reason that a person can see to. */
export class WriteRefusedError extends Error {
  constructor(
    message: string,
    readonly fix: string,
  ) {
    super(message);
    this.name = 'WriteRefusedError';
  }
}

/** A path leads out of the tree, by `..` or by a symbolic link. */
export class OutsideTreeError extends WriteRefusedError {
  constructor(path: string, reason: 'outside' | 'link' | 'moved') {
    const name = printableName(path);
    const says = {
      outside: `${name} is outside the tree.`,
      link: `${name} is a symbolic link. Edits are made to regular files only.`,
      moved: `The folder of ${name} was replaced while the tree was being written to.`,
    }[reason];
    super(says, 'Look at what changed in the tree, then run the command again.');
    this.name = 'OutsideTreeError';
  }
}
