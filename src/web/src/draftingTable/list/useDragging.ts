import { useState, type DragEvent } from 'react';

/** Where a rule that is being dragged would go. */
export interface DropPlace {
  key: string;
  side: 'before' | 'after';
}

/** Drags rules by their margins. Which rule is meant is told by the data-rule of what was taken hold of. */
export function useDragging(onDrop: (key: string, anchor: string, side: 'before' | 'after') => void) {
  const [dragged, setDragged] = useState<string>();
  const [over, setOver] = useState<DropPlace>();

  function end() {
    setDragged(undefined);
    setOver(undefined);
  }

  return {
    over,
    /** For what holds all the rules. */
    list: {
      onDragStart(event: DragEvent) {
        const key = ruleAt(event)?.dataset.rule;
        if (key) {
          event.dataTransfer.effectAllowed = 'move';
          event.dataTransfer.setData('text/plain', key);
          setDragged(key);
        }
      },
      onDragOver(event: DragEvent) {
        const rule = ruleAt(event);
        if (!dragged || !rule) {
          return;
        }
        event.preventDefault();
        const { top, height } = rule.getBoundingClientRect();
        const side = event.clientY < top + height / 2 ? 'before' : 'after';
        if (over?.key !== rule.dataset.rule || over?.side !== side) {
          setOver({ key: rule.dataset.rule!, side });
        }
      },
      onDrop(event: DragEvent) {
        event.preventDefault();
        if (dragged && over && over.key !== dragged) {
          onDrop(dragged, over.key, over.side);
        }
        end();
      },
      onDragEnd: end,
    },
  };
}

const ruleAt = (event: DragEvent) => (event.target as HTMLElement).closest<HTMLElement>('[data-rule]');
