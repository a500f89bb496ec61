import type { SentencePart } from '../../api/generated';
import { before } from './plainText';
import classes from './SentenceText.module.css';

/** A rule's sentence as running text. */
export function SentenceText({ parts }: { parts: SentencePart[] }) {
  return (
    <span className={classes.sentence}>
      {parts.map((part, i) => (
        <span key={i} className={classes[part.kind]}>
          {before(parts, i)}
          {part.text}
        </span>
      ))}
    </span>
  );
}
