import type { Cell, Comparand, SubjectOffer, Test } from '../../api/generated';
import { Chip } from './Chip';
import { ComparandChip } from './ComparandChip';
import { fitComparands, replaced, without } from './compose';
import classes from './OpenRule.module.css';

interface Props {
  offer: SubjectOffer;
  test: Test;
  comparands: Comparand[];
  /** Whether the blank of that name, such as `test` or `comparands/0`, is wrong. */
  isWrong: (part: string) => boolean;
  onChange: (next: Required<Pick<Cell, 'comparands'>> & { test: Test }) => void;
}

/** What is asked of a subject: the test, and what it compares with. */
export function TestBlanks({ offer, test, comparands, isWrong, onChange }: Props) {
  const known = offer.tests.find((one) => one.test === test);
  const isMany = known?.shape === 'many';

  /** Ticking several values of one that can be only one of them asks for any of them. */
  function toggle(value: Comparand) {
    const taken = comparands.findIndex((one) => JSON.stringify(one) === JSON.stringify(value));
    const next = taken >= 0 ? without(comparands, taken) : [...comparands, value];
    const many = offer.tests.find((one) => one.test === (test === 'isNot' ? 'noneOf' : 'oneOf'));
    onChange({ comparands: next, test: isMany || next.length < 2 || !many ? test : many.test });
  }

  const takesSeveral = isMany || (['is', 'isNot'].includes(test) && offer.tests.some(({ shape }) => shape === 'many'));
  const [words, after] = (known?.words ?? 'is').split(' … ');
  const blanks =
    known === undefined || known.shape === 'alone' ? 0 : known.shape === 'range' ? 2 : isMany ? comparands.length + 1 : 1;
  return (
    <>
      <Chip
        blank="test"
        label={words!}
        isWrong={isWrong('test')}
        current={test}
        options={() => offer.tests.map((one) => ({ value: one.test, label: one.words }))}
        onPick={(picked) => {
          const next = offer.tests.find((one) => one.test === picked)!;
          onChange({ test: next.test, comparands: fitComparands(comparands, next.shape) });
        }}
      />
      {Array.from({ length: blanks }, (_, i) => (
        // Another test asks for its value anew.
        <span key={comparands.length === 0 ? `${test} ${i}` : i} className={classes.line}>
          {i > 0 && <em>{known?.shape === 'range' ? 'and' : comparands[i] ? 'or' : ''}</em>}
          <ComparandChip
            offer={offer}
            comparand={comparands[i]}
            placeholder={isMany && i > 0 ? '+' : undefined}
            isFurther={isMany && i > 0 && comparands[i] === undefined}
            isWrong={comparands[i] !== undefined && isWrong(`comparands/${i}`)}
            chosen={comparands}
            onToggle={takesSeveral ? toggle : undefined}
            onPick={(value) =>
              onChange({ test, comparands: i < comparands.length ? replaced(comparands, i, value) : [...comparands, value] })
            }
            onRemove={comparands[i] && isMany ? () => onChange({ test, comparands: without(comparands, i) }) : undefined}
          />
        </span>
      ))}
      {after && <em>{after}</em>}
    </>
  );
}
