import { useDroppable } from '@dnd-kit/core';
import { rectSortingStrategy, SortableContext, useSortable } from '@dnd-kit/sortable';
import { Menu, UnstyledButton } from '@mantine/core';
import type { RecordType, Section } from '../api/generated';
import { kindLabel } from '../fields/fieldKinds';
import classes from './Forms.module.css';

interface Props {
  id: string;
  /** What it is called. */
  label: string;
  /** Keys of the fields that stand here. */
  fields: string[];
  type: RecordType;
  /** Where else a field may go. */
  sections: Section[];
  onPlace: (field: string, section: string | null) => void;
}

/** Where fields stand: they are dragged here and from here, by mouse or with the space bar and arrows, or sent by their menu. */
export function Place({ id, label, fields, type, sections, onPlace }: Props) {
  const { setNodeRef, isOver } = useDroppable({ id });
  return (
    <SortableContext id={id} items={fields} strategy={rectSortingStrategy}>
      <ul ref={setNodeRef} className={classes.fields} aria-label={`Fields in ${label}`} data-over={isOver || undefined}>
        {fields.map((key) => (
          <FieldDrawing key={key} field={key} here={id} type={type} sections={sections} onPlace={onPlace} />
        ))}
      </ul>
    </SortableContext>
  );
}

interface FieldProps extends Pick<Props, 'type' | 'sections' | 'onPlace'> {
  field: string;
  here: string;
}

function FieldDrawing({ field: key, here, type, sections, onPlace }: FieldProps) {
  const { attributes, listeners, setNodeRef, transform, isDragging } = useSortable({ id: key });
  const field = type.fields.find((one) => one.key === key);
  const label = field?.label ?? key;
  return (
    <li
      ref={setNodeRef}
      className={classes.field}
      data-field={key}
      data-dragging={isDragging || undefined}
      style={transform ? { transform: `translate(${transform.x}px, ${transform.y}px)` } : undefined}
    >
      <button type="button" className={classes.grip} {...attributes} {...listeners} title="Drag to its place">
        <span className={classes.label}>{label}</span>
        <span className={classes.kind}>{field && kindLabel(field.type.kind)}</span>
      </button>
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
          {here.startsWith('section ') && <Menu.Item onClick={() => onPlace(key, null)}>To the margin</Menu.Item>}
        </Menu.Dropdown>
      </Menu>
    </li>
  );
}
