import { diffWordsWithSpace } from 'diff';
import classes from './Differences.module.css';

/** Two sentences as one, with the words that went and those that came. */
export function Changed({ before, after }: { before: string; after: string }) {
  return (
    <span className={classes.sentence}>
      {diffWordsWithSpace(before, after).map((part, i) =>
        part.added ? (
          <ins key={i}>{part.value}</ins>
        ) : part.removed ? (
          <del key={i}>{part.value}</del>
        ) : (
          <span key={i}>{part.value}</span>
        ),
      )}
    </span>
  );
}
