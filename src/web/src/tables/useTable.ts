import { useState } from 'react';
import { answered, type Problem } from '../api/client';
import { readColumn, readTable, type CellFormat, type FieldType, type InferredColumn, type TableView } from '../api/generated';

/** A column as it would be taken. */
export interface Column extends InferredColumn {
  isTaken: boolean;
}

/** A table that is looked at, with what its columns are taken for; each of those may be another. */
export interface Table extends Omit<TableView, 'columns'> {
  /** What it was called. */
  name: string;
  columns: Column[];
}

/** Reads a file or what was pasted, and what somebody says of its columns. */
export function useTable() {
  const [file, setFile] = useState<{ name: string; content: string }>();
  const [table, setTable] = useState<Table>();
  const [isReading, setReading] = useState(false);
  const [problem, setProblem] = useState<Problem>();

  async function read(name: string, content: string, sheet?: string) {
    setReading(true);
    setProblem(undefined);
    try {
      const view = await answered(readTable({ body: { file: content, sheet } }));
      setFile({ name, content });
      // A column that says nothing is left out unless somebody wants it.
      setTable({ ...view, name, columns: view.columns.map((column) => ({ ...column, isTaken: column.filled > 0 })) });
    } catch (refusal) {
      setProblem(refusal as Problem);
    }
    setReading(false);
  }

  const change = (at: number, part: Partial<Column>) =>
    setTable(
      (before) => before && { ...before, columns: before.columns.map((one, i) => (i === at ? { ...one, ...part } : one)) },
    );

  /** Takes a column for something else; what of it fits then is told by the server. */
  async function reread(at: number, type: FieldType, format: CellFormat) {
    const { id, columns } = table!;
    const { label, key } = columns[at]!;
    setProblem(undefined);
    try {
      const read = await answered(readColumn({ path: { id }, body: { column: at, label, key, type, format } }));
      change(at, read);
    } catch (refusal) {
      setProblem(refusal as Problem);
    }
  }

  return {
    table,
    isReading,
    problem,
    setProblem,
    change,
    reread,
    readFile: async (one: File) => read(one.name, await inBase64(one)),
    readText: async (text: string) => read('what was pasted', await inBase64(new Blob([text]))),
    readSheet: (sheet: string) => (file ? read(file.name, file.content, sheet) : Promise.resolve()),
    leave: () => setTable(undefined),
  };
}

const inBase64 = (blob: Blob) =>
  new Promise<string>((done, fail) => {
    const reader = new FileReader();
    reader.onload = () => done((reader.result as string).replace(/^[^,]*,?/, ''));
    reader.onerror = () => fail(reader.error ?? new Error());
    reader.readAsDataURL(blob);
  });
