import { listHelp } from '../common/list-rows.js';

/** Where the ads of a list are: what a placement has then. */
export const listTypes = [
  `  /** ${listHelp.adRows} */`,
  '  adRows(items: number): number;',
  `  /** ${listHelp.rows} */`,
  '  rows(items: number): number;',
  `  /** ${listHelp.isAd} */`,
  '  isAd(row: number, items: number): boolean;',
  `  /** ${listHelp.itemAt('null')} */`,
  '  itemAt(row: number, items: number): number | null;',
];

/** The function that makes them. */
export const listFunction = [
  '',
  "type ListRows = Pick<PlacebookPlacement, 'adRows' | 'rows' | 'isAd' | 'itemAt'>;",
  '',
  'function listRows({ first, every }: PlacebookSettings): ListRows {',
  '  const start = first ?? every;',
  '  const adRows = (items: number) => {',
  '    if (start === undefined || items < 1 || items < start) return 0;',
  '    return every === undefined ? 1 : 1 + Math.floor((items - start) / every);',
  '  };',
  '  const rows = (items: number) => Math.max(items, 0) + adRows(items);',
  '  const adsBefore = (row: number) => {',
  '    if (start === undefined || row <= start) return 0;',
  '    return every === undefined',
  '      ? 1',
  '      : 1 + Math.floor((row - start - 1) / (every + 1));',
  '  };',
  '  const isAd = (row: number, items: number) =>',
  '    row >= 0 && row < rows(items) && adsBefore(row + 1) > adsBefore(row);',
  '  const itemAt = (row: number, items: number) =>',
  '    row < 0 || row >= rows(items) || isAd(row, items)',
  '      ? null',
  '      : row - adsBefore(row);',
  '  return { adRows, rows, isAd, itemAt };',
  '}',
];
