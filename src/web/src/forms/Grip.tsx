import type { DraggableAttributes, DraggableSyntheticListeners } from '@dnd-kit/core';
import { IconGripVertical } from '@tabler/icons-react';
import classes from './Forms.module.css';

interface Props {
  what: string;
  attributes: DraggableAttributes;
  listeners: DraggableSyntheticListeners;
}

/** By which a section or a tab is taken, by mouse or with the space bar and arrows. */
export const Grip = ({ what, attributes, listeners }: Props) => (
  <button type="button" className={classes.handle} aria-label={`Drag the ${what}`} {...attributes} {...listeners}>
    <IconGripVertical size={15} />
  </button>
);
