import { useSortable } from '@dnd-kit/sortable';
import { Menu, UnstyledButton } from '@mantine/core';
import { useContext } from 'react';
import type { RecordType, Section } from '../api/generated';
import { RuleBalloons } from '../draftingTable/sheet/RuleBalloons';
import { asks } from '../engine/elementState';
import { useElement } from '../engine/useRecord';
import { kindLabel } from '../fields/fieldKinds';
import lines from '../sheet/lines.module.css';
import { DrawnContext, type Drawn } from './drawn';
import classes from './Forms.module.css';

interface Props {
  field: string;
  /** The place where it stands. */
  here: string;
  type: RecordType;
  /** Where else it may go. */
  sections: Section[];
  /** How many columns it takes; undefined in the margin, where there are none. */
  width: number | undefined;
  onPlace: (field: string, section: string | null) => void;
  onWidth: (field: string, width: number) => void;
}

const widths = [
  { width: 1, label: 'One column wide' },
  { width: 2, label: 'Two columns wide' },
  { width: 4, label: 'The whole row' },
];

/** One field as it is dragged about: in the lines of its state on a new record, with the rules that touch it. */
export function FieldDrawing({ field: key, here, type, sections, width, onPlace, onWidth }: Props) {
  const { attributes, listeners, setNodeRef, transform, isDragging } = useSortable({ id: key });
  const drawn = useContext(DrawnContext);
  const field = type.fields.find((one) => one.key === key);
  const label = field?.label ?? key;
  return (
    <li
      ref={setNodeRef}
      className={classes.field}
      data-field={key}
      data-width={width}
      data-dragging={isDragging || undefined}
      style={transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : undefined}
    >
      {drawn && width !== undefined ? (
        <Grip drawn={drawn} field={key} label={label} kind={field && kindLabel(field.type.kind)} {...attributes} {...listeners} />
      ) : (
        <button type="button" className={classes.grip} {...attributes} {...listeners} title={`Drag ${label} to its place`}>
          <span className={classes.label}>{label}</span>
          <span className={classes.kind}>{field && kindLabel(field.type.kind)}</span>
        </button>
      )}
      {drawn && (
        <span className={classes.balloons}>
          <RuleBalloons
            touching={drawn.touching}
            record={drawn.record}
            kind="field"
            elementKey={key}
            onChoose={() => drawn.onRule()}
          />
        </span>
      )}
      <Menu position="bottom-end">
        <Menu.Target>
          <UnstyledButton className={classes.send} aria-label={`Send ${label} elsewhere`}>
            ▾
          </UnstyledButton>
        </Menu.Target>
        <Menu.Dropdown>
          {sections
            .filter((section) => `section ${section.key}` !== here)
            .map((section) => (
              <Menu.Item key={section.key} onClick={() => onPlace(key, section.key)}>
                To {section.label}
              </Menu.Item>
            ))}
          {width !== undefined && (
            <>
              <Menu.Item onClick={() => onPlace(key, null)}>To the margin</Menu.Item>
              <Menu.Divider />
              {widths
                .filter((one) => one.width !== width)
                .map((one) => (
                  <Menu.Item key={one.width} onClick={() => onWidth(key, one.width)}>
                    {one.label}
                  </Menu.Item>
                ))}
            </>
          )}
        </Menu.Dropdown>
      </Menu>
    </li>
  );
}

interface GripProps extends Omit<React.ComponentProps<'button'>, 'ref' | 'type'> {
  drawn: Drawn;
  field: string;
  label: string;
  kind: string | undefined;
}

/** What the field is taken by, drawn as it would be on a new record. */
function Grip({ drawn, field, label, kind, ...drag }: GripProps) {
  const state = useElement(drawn.record, 'field', field);
  const word = !state.isVisible
    ? 'hidden'
    : state.isLocked
      ? 'locked'
      : asks(state)
        ? state.requirement === 'toSave'
          ? 'to save'
          : 'to move on'
        : kind;
  return (
    <button
      type="button"
      {...drag}
      className={[
        classes.grip,
        state.isVisible ? '' : classes.hidden,
        asks(state) ? lines.required : '',
        state.isLocked && state.isVisible ? lines.locked : '',
      ].join(' ')}
      title={`Drag ${label} to its place`}
    >
      <span className={classes.label}>{label}</span>
      <span className={classes.kind}>{word}</span>
    </button>
  );
}
