import { useState } from 'react';
import { answered, type Problem } from '../api/client';
import {
  importRecords,
  importRules,
  type ImportReport,
  type ImportView,
  type Pack,
  type Problem as Mistake,
} from '../api/generated';
import type { SharedDraft } from '../draftingTable/draft/sharedDraft';
import { fileText } from './fileText';

/** What a file would change, or has changed. */
export type Incoming = { name: string; isTaken: boolean } & (
  { kind: 'rules'; view: ImportView } | { kind: 'records'; report: ImportReport }
);

export type Refusal = Problem & { problems?: Mistake[] };

/** A file that comes in: looked at first, then taken over. */
export function useIncoming(key: string, shared: SharedDraft) {
  const [file, setFile] = useState<File>();
  const [looked, setLooked] = useState<Incoming>();
  const [problem, setProblem] = useState<Refusal>();

  async function send(one: File, isTaken: boolean): Promise<Incoming> {
    const text = await fileText(one);
    const { name } = one;
    if (/\.csv$/i.test(name)) {
      const report = await answered(
        importRecords({
          path: { key },
          query: { dryRun: !isTaken },
          body: text,
          bodySerializer: asItIs,
          headers: { 'Content-Type': 'text/csv' },
        }),
      );
      return { name, isTaken, kind: 'records', report };
    }
    const isXml = /\.(dmn|xml)$/i.test(name);
    const view = await answered(
      importRules({
        path: { key },
        query: isTaken ? { apply: await shared.settle() } : {},
        body: text as unknown as Pack,
        bodySerializer: asItIs,
        headers: { 'Content-Type': isXml ? 'application/xml' : 'application/json' },
      }),
    );
    return { name, isTaken, kind: 'rules', view };
  }

  async function run(one: File, isTaken: boolean) {
    setProblem(undefined);
    try {
      setLooked(await send(one, isTaken));
      if (isTaken) {
        await shared.pull();
      }
    } catch (refusal) {
      setProblem(refusal as Refusal);
    }
  }

  return {
    looked,
    problem,
    look: (one: File) => {
      setFile(one);
      setLooked(undefined);
      return run(one, false);
    },
    take: () => (file ? run(file, true) : Promise.resolve()),
    leave: () => setLooked(undefined),
  };
}

const asItIs = (body: unknown) => body as string;
