import { useDroppable } from '@dnd-kit/core';
import { rectSortingStrategy, SortableContext } from '@dnd-kit/sortable';
import type { RecordType, Section } from '../api/generated';
import { FieldDrawing } from './FieldDrawing';
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
  /** The section that it is, with its columns; undefined for the margin. */
  section?: Section;
  onPlace: (field: string, section: string | null) => void;
  onWidth?: (field: string, width: number) => void;
}

/** Where fields stand: they are dragged here and from here, by mouse or with the space bar and arrows, or sent by their menu. */
export function Place({ id, label, fields, type, sections, section, onPlace, onWidth = () => undefined }: Props) {
  const { setNodeRef, isOver } = useDroppable({ id });
  return (
    <SortableContext id={id} items={fields} strategy={rectSortingStrategy}>
      <ul
        ref={setNodeRef}
        className={classes.fields}
        aria-label={`Fields in ${label}`}
        data-columns={section?.columns ?? undefined}
        data-over={isOver || undefined}
      >
        {fields.map((key) => (
          <FieldDrawing
            key={key}
            field={key}
            here={id}
            type={type}
            sections={sections}
            width={section && (section.widths?.[key] ?? 1)}
            onPlace={onPlace}
            onWidth={onWidth}
          />
        ))}
      </ul>
    </SortableContext>
  );
}
