import { diffArrays } from 'diff';
import classes from './Differences.module.css';

const words = new Intl.Segmenter('en', { granularity: 'word' });

/** A number is one word, with all that stands between its digits. */
const wordsOf = (text: string) => [...words.segment(text)].map(({ segment }) => segment);

/** Two sentences as one, with the words that went and those that came. */
export function Changed({ before, after }: { before: string; after: string }) {
  return (
    <span className={classes.sentence}>
      {diffArrays(wordsOf(before), wordsOf(after)).map((part, i) =>
        part.added ? (
          <ins key={i}>{part.value.join('')}</ins>
        ) : part.removed ? (
          <del key={i}>{part.value.join('')}</del>
        ) : (
          <span key={i}>{part.value.join('')}</span>
        ),
      )}
    </span>
  );
}
