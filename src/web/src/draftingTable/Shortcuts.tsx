import { Kbd, Switch } from '@mantine/core';
import { Dialog } from '../frame/Dialog';
import classes from './Shortcuts.module.css';

/** The keys from anywhere, those while a rule in the list has the focus, and what they do. */
const shortcuts: [string[], string[], string][] = [
  [['Alt', 'L'], ['/'], 'Say a rule in the line'],
  [['Alt', 'N'], ['n'], 'Begin a new rule'],
  [['Alt', 'G'], ['g'], 'Begin a grid'],
  [['Alt', 'J'], ['j'], 'Open the next rule'],
  [['Alt', 'K'], ['k'], 'Open the rule before'],
  [['Alt', 'T'], ['t'], 'Write the open rule as text'],
  [[], ['f'], 'Find in the list of rules'],
  [[], ['e'], 'Editions: compare, discard, go back'],
  [[], ['Alt', '↑ ↓'], 'Move the rule up or down'],
  [[], ['?'], 'Show these keys'],
  [['Escape'], [], 'Close what is open: a list, the line, an element, a rule'],
  [['Alt', '1 … 9'], [], 'In the line: take a sentence that is offered'],
  [['Alt', 'W'], [], 'In the line: walk its words, for what each stands'],
  [['Alt', 'O'], [], 'Keep the other word that is offered beside the line'],
  [['Ctrl', 'Z'], [], 'Undo'],
  [['Ctrl', 'Shift', 'Z'], [], 'Redo'],
];

const drawn = (keys: string[]) =>
  keys.map((key) => (
    <Kbd key={key} mr={4}>
      {key}
    </Kbd>
  ));

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
        <thead>
          <tr>
            <th scope="col">Anywhere</th>
            <th scope="col">On a rule in the list</th>
            <td />
          </tr>
        </thead>
        <tbody>
          {shortcuts.map(([anywhere, onRule, what]) => (
            <tr key={what}>
              <td>{drawn(anywhere)}</td>
              <td>{drawn(onRule)}</td>
              <td>{what}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <Switch
        size="xs"
        mt="xs"
        label="Letters by themselves are shortcuts while a rule in the list has the focus"
        checked={hasLetterKeys}
        onChange={(event) => onLetterKeys(event.currentTarget.checked)}
      />
      <p className={classes.note}>
        Whatever has the focus begins to be edited by typing. In a list: type to filter, arrows to walk, Enter to take and go on,
        Space, or Shift with Enter behind typed text, to tick several. In a grid: arrows, Space to paint, a letter for the state
        that begins with it. In a table: arrows, Enter to write, Tab to go on, Shift with arrows for a range, Ctrl C and Ctrl V to
        copy and paste, Alt with arrows to move a row.
      </p>
    </Dialog>
  );
}
