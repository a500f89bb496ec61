import type { SentencePart } from '../api/generated';
import classes from './SentenceText.module.css';

/** A rule's sentence as running text. */
export function SentenceText({ parts }: { parts: SentencePart[] }) {
  return (
    <span className={classes.sentence}>
      {parts.map((part, i) => (
        <span key={i} className={classes[part.kind]}>
          {i === 0 || part.glued || parts[i - 1]!.text === '(' ? '' : ' '}
          {part.text}
        </span>
      ))}
    </span>
  );
}
