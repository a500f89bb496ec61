import classes from './Balloon.module.css';

interface Props {
  number: number;
  isInForce: boolean;
  isChosen?: boolean;
  /** Whether it stands for the rule itself, in the list of rules. */
  isRule?: boolean;
  /** What a press does, for those who cannot see the drawing. */
  label: string;
  onPress?: () => void;
}

/** A small circled rule number with a leader line. Filled while the rule is in force. */
export function Balloon({ number, isInForce, isChosen = false, isRule = false, label, onPress }: Props) {
  return (
    <button
      type="button"
      className={classes.balloon}
      data-in-force={isInForce || undefined}
      data-chosen={isChosen || undefined}
      data-rule-itself={isRule || undefined}
      aria-label={label}
      title={label}
      onClick={onPress}
    >
      {number}
    </button>
  );
}
