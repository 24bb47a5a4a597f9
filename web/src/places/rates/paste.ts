// Cells of a spreadsheet that are pasted into a table of prices.
import type { PriceTable } from '@/api/types';

/** Whether a text is more than one cell. */
export function isBlock(text: string): boolean {
  return /[\t\n]/.test(text.trim());
}

/** The cells of a text, row by row, as every spreadsheet copies them. */
export function block(text: string): string[][] {
  const lines = text.replace(/\r/g, '').replace(/\n+$/, '').split('\n');
  return lines.map((line) => line.split('\t').map((cell) => cell.trim()));
}

/** A table with cells laid over it from one cell on; rows that it lacks are added, columns are not. */
export function laid(table: PriceTable, cells: readonly string[][], row: number, column: number): PriceTable {
  const rows = Math.max(table.weights.length, row + cells.length);
  const fill = (texts: readonly string[]) => Array.from({ length: rows }, (_, at) => texts[at] ?? '');
  return {
    weights: fill(table.weights),
    zones: table.zones.map((zone, at) => ({
      ...zone,
      prices: fill(zone.prices).map((price, down) => cells[down - row]?.[at - column] ?? price),
    })),
  };
}
