import { Text, UnstyledButton } from '@mantine/core';
import type { Move, Outlook, RecordType, Refusal } from '../api/generated';
import { fieldLabel, formLabel, moveLabel, roleLabel } from '../sheet/lookUp';
import lines from '../sheet/lines.module.css';
import { inLocale } from '../writing/dates';
import classes from './RecordForm.module.css';

type Typed = { recordType: RecordType };

interface Props {
  type: RecordType;
  /** What would come of each move that is this person's to make; undefined until that is known. */
  outlook: Outlook[] | undefined;
  isLive: boolean;
  /** The moves that lead away from here, whoever may make them. */
  moves: Move[];
  onGoTo: (field: string, form?: string | null) => void;
}

/** For each move that is this person's to make: what stands in its way, each one press away, or that nothing does. */
export function Missing({ type, outlook, isLive, moves, onGoTo }: Props) {
  const definition = { recordType: type };
  if (!isLive && outlook === undefined) {
    return null;
  }
  return (
    <section aria-label="What is missing">
      <h3 className={classes.heading}>Moving on</h3>
      {outlook === undefined ? (
        <Text size="sm" c="dimmed">
          Looking at what stands in the way…
        </Text>
      ) : outlook.length === 0 ? (
        <Text size="sm">{none(definition, moves)}</Text>
      ) : (
        alike(outlook).map(({ moves: same, refusals }) => (
          <div key={same.join(' ')} data-moves={same.join(' ')}>
            <Text size="sm">
              <strong>{same.map((move) => moveLabel(definition, move)).join(', ')}</strong>
              {': '}
              {refusals.length === 0
                ? 'nothing stands in the way.'
                : refusals.length === 1
                  ? 'one thing stands in the way.'
                  : `${refusals.length} things stand in the way.`}
            </Text>
            <ul className={classes.list}>
              {refusals.map((refusal, i) => (
                <li key={i}>
                  <Reason definition={definition} refusal={refusal} onGoTo={onGoTo} />
                </li>
              ))}
            </ul>
          </div>
        ))
      )}
    </section>
  );
}

function Reason({ definition, refusal, onGoTo }: { definition: Typed; refusal: Refusal } & Pick<Props, 'onGoTo'>) {
  const { field, form, reason, message } = refusal;
  if (!field) {
    return <>{inLocale(message)}</>;
  }
  return (
    <>
      <UnstyledButton className={classes.link} title={message} onClick={() => onGoTo(field, form)}>
        {fieldLabel(definition, field)}
      </UnstyledButton>{' '}
      {reason === 'neededToSave' && <span className={lines.word}>needed to save</span>}
      {reason !== 'neededToSave' && reason !== 'neededToMoveOn' && <span>{inLocale(message)}</span>}
      {form && <span className={lines.word}> on {formLabel(definition, form)}</span>}
    </>
  );
}

/** Why no move is offered. */
function none(definition: Typed, moves: Move[]) {
  if (moves.length === 0) {
    return 'No move leads on from this stage.';
  }
  const others = moves.map(
    (move) => `${move.label} (${(move.roles ?? []).map((role) => roleLabel(definition, role)).join(' or ')})`,
  );
  return `No move from here is yours to make: ${others.join(', ')}.`;
}

/** Moves with the same in their way, together. */
function alike(outlook: Outlook[]) {
  const groups = new Map<string, { moves: string[]; refusals: Refusal[] }>();
  outlook.forEach(({ move, refusals }) => {
    const key = JSON.stringify(refusals);
    groups.set(key, { moves: [...(groups.get(key)?.moves ?? []), move], refusals });
  });
  return [...groups.values()];
}
