import Table from 'cli-table3';

/** A table without rules, its columns two blanks apart. */
export function plainTable(head: string[]): Table.Table {
  const chars = {
    mid: '',
    'left-mid': '',
    'mid-mid': '',
    'right-mid': '',
    top: '',
    'top-mid': '',
    'top-left': '',
    'top-right': '',
    bottom: '',
    'bottom-mid': '',
    'bottom-left': '',
    'bottom-right': '',
    left: '',
    right: '',
    middle: '  ',
  };
  return new Table({ head, chars, style: { head: [], border: [], 'padding-left': 0, 'padding-right': 0 } });
}
