import { Kbd, Switch } from '@mantine/core';
import { Dialog } from '../frame/Dialog';
import classes from './Shortcuts.module.css';

const shortcuts: [string[], string][] = [
  [['/'], 'Say a rule in the line'],
  [['n'], 'Begin a new rule'],
  [['g'], 'Begin a grid'],
  [['f'], 'Find in the list of rules'],
  [['e'], 'Editions: compare, discard, go back'],
  [['j'], 'Open the next rule'],
  [['k'], 'Open the rule before'],
  [['t'], 'Write the open rule as text'],
  [['Escape'], 'Leave what is open: a list, the line, an element, a rule'],
  [['Ctrl', 'Z'], 'Undo'],
  [['Ctrl', 'Shift', 'Z'], 'Redo'],
  [['?'], 'Show these keys'],
];

interface Props {
  isOpen: boolean;
  onClose: () => void;
  /** Whether a letter by itself stands for something. */
  hasLetterKeys: boolean;
  onLetterKeys: (isWanted: boolean) => void;
}

/** The keys of the drafting table. */
export function Shortcuts({ isOpen, onClose, hasLetterKeys, onLetterKeys }: Props) {
  return (
    <Dialog isOpen={isOpen} onClose={onClose} title="Keys of the drafting table">
      <table className={classes.table}>
        <tbody>
          {shortcuts.map(([keys, what]) => (
            <tr key={what}>
              <td>
                {keys.map((key) => (
                  <Kbd key={key} mr={4}>
                    {key}
                  </Kbd>
                ))}
              </td>
              <td>{what}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <Switch
        size="xs"
        mt="xs"
        label="Letters by themselves are shortcuts"
        checked={hasLetterKeys}
        onChange={(event) => onLetterKeys(event.currentTarget.checked)}
      />
      <p className={classes.note}>
        In a list: type to filter, arrows to walk, Enter to take, Space to tick several. In a table: arrows, Enter to write, Tab
        to go on, Shift with arrows for a range, Ctrl C and Ctrl V to copy and paste, Alt with arrows to move a row.
      </p>
    </Dialog>
  );
}
