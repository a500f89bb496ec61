import { Button, Kbd } from '@mantine/core';
import { useHotkeys } from '@mantine/hooks';
import type { OtherWord } from '../../api/generated';
import classes from './OfferedWord.module.css';

interface Props {
  word: OtherWord;
  /** What it was said for, as people read it. */
  meant: string;
  onTake: () => void;
  onLeave: () => void;
}

/** Offers to understand a word from now on, for which a name was put by hand. */
export function OfferedWord({ word, meant, onTake, onLeave }: Props) {
  useHotkeys([['alt+o', onTake]], []);
  return (
    <div className={classes.offer} role="status" data-offered-word>
      <span>
        From now on, is “{word.said}” another word for <b>{meant}</b>?
      </span>
      <span className={classes.answers}>
        <Button size="compact-xs" onClick={onTake}>
          Yes, keep it
        </Button>
        <Kbd>Alt O</Kbd>
        <Button size="compact-xs" variant="default" onClick={onLeave}>
          No
        </Button>
      </span>
    </div>
  );
}
