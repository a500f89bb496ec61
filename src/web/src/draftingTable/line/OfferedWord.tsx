import { Button, Kbd } from '@mantine/core';
import { useHotkeys } from '@mantine/hooks';
import type { OtherWord, RecordType } from '../../api/generated';
import classes from './OfferedWord.module.css';
import { meantBy, withWord } from './otherWords';

interface Props {
  type: RecordType;
  word: OtherWord;
  onTake: (type: RecordType) => void;
  /** Told once it is taken or left. */
  onDone: () => void;
}

/** Offers to understand a word from now on, for which a name was put by hand. */
export function OfferedWord({ type, word, onTake, onDone }: Props) {
  function take() {
    onTake(withWord(type, word));
    onDone();
  }
  useHotkeys([['alt+o', take]], []);
  return (
    <div className={classes.offer} role="status" data-offered-word>
      <span>
        From now on, is “{word.said}” another word for <b>{meantBy(type, word)}</b>?
      </span>
      <span className={classes.answers}>
        <Button size="compact-xs" onClick={take}>
          Yes, keep it
        </Button>
        <Kbd>Alt O</Kbd>
        <Button size="compact-xs" variant="default" onClick={onDone}>
          No
        </Button>
      </span>
    </div>
  );
}
