/** Readings as they are pasted or saved: columns of numbers. */
import type { Units } from '../api/types';

const rowsOf = (text: string) => text.split(/\r?\n/).filter((row) => row.trim() !== '');

/** The cells of rows; a comma parts them, unless it stands in every number as a decimal comma. */
function cellsOf(rows: string[]): string[][] {
  const last = (row: string) => row.split(/[;\t]/).at(-1)!.trim();
  const decimal = rows.every((row) => /^[-−+]?\d+,\d+$/.test(last(row)));
  return rows.map((row) =>
    row
      .split(decimal ? /[;\t]/ : /[;\t,]/)
      .map((c) => (decimal ? c.replace(',', '.') : c).replace('−', '-').trim()),
  );
}

const scaleOf = (units: string) => (units === 'in' ? 25.4 : 1);

/** Plain numbers of a pasted or saved column, in the unit that is on. */
export function readNumbers(text: string, units: Units): number[] {
  return cellsOf(rowsOf(text))
    .flatMap((cells) => {
      const numbers = cells.filter((c) => c !== '' && Number.isFinite(Number(c)));
      // A row that names its place, or counts, has its reading last.
      return cells.length > 2 || numbers.length === 2 ? numbers.slice(-1) : numbers;
    })
    .map((c) => Number(c) * scaleOf(units));
}

/** The readings of both rounds of a file: by its `first_mm` and `second_mm`, as Corte saves them, or of one plain column. */
export function readRounds(text: string, units: Units): [number[], number[]] {
  const [head = [], ...rows] = cellsOf(rowsOf(text));
  const column = (round: string): number[] | undefined => {
    const at = head.findIndex((name) => name.startsWith(`${round}_`));
    if (at < 0) return undefined;
    const scale = scaleOf(head[at]!.slice(round.length + 1));
    return rows.flatMap((cells) => {
      const v = Number(cells[at] || 'none');
      return Number.isFinite(v) ? [v * scale] : [];
    });
  };
  return [column('first') ?? readNumbers(text, units), column('second') ?? []];
}
