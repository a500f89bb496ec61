import { expect, it, vi } from 'vitest';
import type { Definition, Rule } from '../api/generated';
import { Engine } from './engine';
import type { EngineExports } from './engineExports';

const rule = (name: string) => ({ key: name, name, cases: [] }) as unknown as Rule;
const definition = (...rules: Rule[]) => ({ recordType: { key: 'loan' }, rules }) as unknown as Definition;

function listening() {
  let programs = 0;
  const read = (bytes: Uint8Array) => JSON.parse(new TextDecoder().decode(bytes)) as unknown;
  const compile = vi.fn((model: unknown) => (void model, ++programs));
  const recompile = vi.fn((program: number, rules: unknown) => (void [program, rules], ++programs));
  const write = vi.fn((program: number, rules: number[]) =>
    JSON.stringify(rules.map((place) => [{ text: `${program}:${place}` }])),
  );
  const exports = {
    Programs: {
      Compile: (bytes: Uint8Array) => compile(read(bytes)),
      Recompile: (program: number, bytes: Uint8Array) => recompile(program, read(bytes)),
      Close: () => undefined,
    },
    Sentences: { Write: write },
  } as unknown as EngineExports;
  return { engine: new Engine(exports), compile, recompile, write };
}

it('hands over only the rules that were edited, and the places of the others', () => {
  const { engine, compile, recompile } = listening();
  const [crate, courier, fee] = [rule('crate'), rule('courier'), rule('fee')];
  const before = definition(crate, courier, fee);
  engine.compile(before);

  const edited = rule('courier at last');
  engine.compile({ ...before, rules: [fee, crate, edited] });

  expect(compile).toHaveBeenCalledTimes(1);
  expect(recompile).toHaveBeenCalledWith(1, [2, 0, edited]);
});

it('compiles nothing for the same definition, whatever the form', () => {
  const { engine, compile, recompile } = listening();
  const same = definition(rule('crate'));

  expect(engine.compile(same)).toBe(engine.compile(same));

  expect(compile).toHaveBeenCalledTimes(1);
  expect(recompile).not.toHaveBeenCalled();
});

it('hands over everything where the record type is another', () => {
  const { engine, compile } = listening();
  engine.compile(definition());
  engine.compile(definition());

  expect(compile).toHaveBeenCalledTimes(2);
});

it('writes the sentence of a rule once, however often others are edited', () => {
  const { engine, write } = listening();
  const [crate, courier] = [rule('crate'), rule('courier')];
  const before = definition(crate, courier);
  engine.compile(before).sentences();
  const sentences = engine.compile({ ...before, rules: [rule('new'), courier, crate] }).sentences();

  expect(write.mock.calls).toEqual([
    [1, [0, 1]],
    [2, [0]],
  ]);
  expect(sentences.map((parts) => parts[0]!.text)).toEqual(['2:0', '1:1', '1:0']);
});
