import { describe, expect, it } from 'vitest';
import type { RecordType, Rule } from '../../api/generated';
import type { Hearing } from '../../engine/answers';
import type { DraftProgram } from '../../engine/draftProgram';
import { packOf, pasted } from './exchange';

const rule = (key: string): Rule => ({ key, name: `Rule ${key}`, on: true, cases: [] });
const type = { key: 'loan' } as RecordType;

/** An engine that understands what begins with "lock", and wants to know which fee is meant. */
const program = {
  hear: (said: string, like: Rule): Promise<Partial<Hearing>> =>
    Promise.resolve(
      said.startsWith('lock fee')
        ? { question: { start: 5, end: 8, said: 'fee', options: [] } }
        : said.startsWith('lock')
          ? { rule: like }
          : { misunderstanding: { place: 0, message: 'Go on with a rule.', nearest: [] } },
    ),
  ruleName: () => Promise.resolve('Lock it'),
} as unknown as DraftProgram;

describe('Rules from elsewhere', () => {
  it('come out of a pack as they were put in, with another key where theirs is taken', async () => {
    const { rules } = await pasted(packOf(type, [rule('a'), rule('b')]), program, [rule('a')]);
    expect(rules.map(({ name }) => name)).toEqual(['Rule a', 'Rule b']);
    expect(rules[0]!.key).not.toBe('a');
    expect(rules[1]!.key).toBe('b');
  });

  it('are heard line by line, and lines that cannot be read stay with the reason', async () => {
    const { rules, unread } = await pasted('lock title\n\n  lock fee \nnonsense', program, []);
    expect(rules.map(({ name }) => name)).toEqual(['Lock it']);
    expect(unread).toEqual([
      { line: 'lock fee', why: '“fee” may mean several things.' },
      { line: 'nonsense', why: 'Go on with a rule.' },
    ]);
  });

  it('are not made of other JSON', async () => {
    expect((await pasted('{"rules": [1]}', program, [])).unread).toHaveLength(1);
  });
});
