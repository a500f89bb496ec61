import type { RecordType, Rule } from '../../api/generated';
import type { DraftProgram } from '../../engine/draftProgram';
import { newKey } from '../rule/compose';

/** Rules as they stand in a pack of their record type. */
export const packOf = (recordType: RecordType, rules: Rule[]): string =>
  JSON.stringify({ format: 'dibujo-pack', version: 1, recordType, rules, examples: [] }, null, 2);

/** Rules as sentences, a line each. */
export async function sentencesOf(program: DraftProgram, rules: Rule[]): Promise<string> {
  return (await Promise.all(rules.map((rule) => program.sentenceOf(rule)))).join('\n');
}

/** What came of a text that was pasted: rules, and the lines that could not be read, with the reason. */
export interface Pasted {
  rules: Rule[];
  unread: { line: string; why: string }[];
}

/** Reads a pack, a list of rules from one, or sentences, a line each. Rules that are there already get another key. */
export async function pasted(text: string, program: DraftProgram, present: Rule[]): Promise<Pasted> {
  const fromPack = rulesIn(text);
  if (fromPack) {
    const taken = new Set(present.map(({ key }) => key));
    return { rules: fromPack.map((rule) => (taken.has(rule.key) ? { ...rule, key: newKey() } : rule)), unread: [] };
  }
  const result: Pasted = { rules: [], unread: [] };
  for (const line of text.split(/\r?\n/).map((one) => one.trim())) {
    if (line === '') {
      continue;
    }
    const { rule, question, misunderstanding } = await program.hear(line, { key: newKey(), name: '', on: true });
    if (rule) {
      result.rules.push({ ...rule, name: await program.ruleName(rule) });
    } else {
      result.unread.push({ line, why: misunderstanding?.message ?? `“${question?.said ?? line}” may mean several things.` });
    }
  }
  return result;
}

function rulesIn(text: string): Rule[] | undefined {
  try {
    const read = JSON.parse(text) as unknown;
    const rules = Array.isArray(read) ? read : (read as { rules?: unknown }).rules;
    return Array.isArray(rules) &&
      rules.every((rule) => typeof (rule as Rule).key === 'string' && typeof (rule as Rule).name === 'string')
      ? (rules as Rule[])
      : undefined;
  } catch {
    return undefined;
  }
}
