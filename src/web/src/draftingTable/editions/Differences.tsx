import { Button, Text } from '@mantine/core';
import type { Difference } from '../../api/generated';
import { Changed } from './Changed';
import classes from './Differences.module.css';

interface Props {
  differences: Difference[];
  /** Puts one thing back to how it was; where it is missing, nothing can be put back here. */
  onDiscard?: (difference: Difference) => void;
}

const words: Record<Difference['change'], string> = { added: 'new', changed: 'changed', removed: 'deleted' };

/** What is other in one version than in another: rules sentence by sentence, with the words that changed marked. */
export function Differences({ differences, onDiscard }: Props) {
  return differences.length === 0 ? (
    <Text size="sm" c="dimmed">
      Nothing is different.
    </Text>
  ) : (
    <ul className={classes.list}>
      {differences.map((difference) => (
        <li key={`${difference.what} ${difference.key}`} data-change={difference.change}>
          <div className={classes.head}>
            <strong>{difference.label}</strong>
            <span className={classes.word}>
              {difference.what === 'rule' || difference.what === 'order' ? '' : `${difference.what}, `}
              {words[difference.change]}
            </span>
            {onDiscard && difference.what === 'rule' && (
              <Button
                size="compact-xs"
                variant="default"
                aria-label={`Discard the change of ${difference.label}`}
                onClick={() => onDiscard(difference)}
              >
                Discard
              </Button>
            )}
          </div>
          {(difference.before ?? difference.after) && (
            <p className={classes.words}>
              {difference.before && difference.after ? (
                <Changed before={difference.before} after={difference.after} />
              ) : (
                (difference.after ?? difference.before)
              )}
            </p>
          )}
          {(difference.beside ?? []).map((sentence) => (
            <p key={sentence} className={classes.beside}>
              {sentence}
            </p>
          ))}
        </li>
      ))}
    </ul>
  );
}
