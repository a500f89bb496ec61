import type { RowReport } from '../api/generated';

/** The column that says why a row was refused; the server passes over it when the file is sent again. */
const whyColumn = 'why refused';

/** The lines of comma-separated values, each with all that its quotation marks hold together; without those in which nothing stands. */
export function recordsOf(text: string): string[] {
  const records: string[] = [];
  let isQuoted = false;
  let start = 0;
  for (let i = 0; i < text.length; i++) {
    if (text[i] === '"') {
      isQuoted = !isQuoted;
    } else if (text[i] === '\n' && !isQuoted) {
      records.push(text.slice(start, i).replace(/\r$/, ''));
      start = i + 1;
    }
  }
  records.push(text.slice(start));
  return records.filter((record) => /[^\s,"]/.test(record));
}

/** The rows of a file that were refused, with why beside each; reports come in the order of the rows. */
export function refusedFile(text: string, rows: RowReport[]): string {
  const [head = '', ...records] = recordsOf(text.replace(/^\uFEFF/, ''));
  const quoted = (reasons: string[]) => `"${reasons.join(' ').replaceAll('"', '""')}"`;
  const hasWhy = head.split(',').at(-1)?.trim() === whyColumn;
  const bare = (record: string) => (hasWhy ? record.replace(/,("([^"]|"")*"|[^",]*)$/, '') : record);
  return [
    `${bare(head)},${whyColumn}`,
    ...rows.flatMap(({ reasons }, i) =>
      reasons.length > 0 && records[i] !== undefined ? [`${bare(records[i])},${quoted(reasons)}`] : [],
    ),
    '',
  ].join('\r\n');
}
