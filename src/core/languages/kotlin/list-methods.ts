import { listHelp } from '../common/list-rows.js';

/** Where the ads of a list are: methods of a placement that is in one. */
export const listMethods = [
  '',
  `        /** ${listHelp.adRows} */`,
  '        fun adRows(items: Int): Int {',
  '            val start = first ?: every ?: return 0',
  '            if (items < 1 || items < start) return 0',
  '            return if (every == null) 1 else 1 + (items - start) / every',
  '        }',
  '',
  `        /** ${listHelp.rows} */`,
  '        fun rows(items: Int): Int = maxOf(items, 0) + adRows(items)',
  '',
  `        /** ${listHelp.isAd} */`,
  '        fun isAd(row: Int, items: Int): Boolean =',
  '            row >= 0 && row < rows(items) && adsBefore(row + 1) > adsBefore(row)',
  '',
  `        /** ${listHelp.itemAt('null')} */`,
  '        fun itemAt(row: Int, items: Int): Int? =',
  '            if (row < 0 || row >= rows(items) || isAd(row, items)) null else row - adsBefore(row)',
  '',
  '        private fun adsBefore(row: Int): Int {',
  '            val start = first ?: every ?: return 0',
  '            if (row <= start) return 0',
  '            return if (every == null) 1 else 1 + (row - start - 1) / (every + 1)',
  '        }',
];
