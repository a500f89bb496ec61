import { ActionIcon, SegmentedControl } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import { useRef, useState, type KeyboardEvent } from 'react';
import type { Element, State } from '../../api/generated';
import { Chip } from '../rule/Chip';
import { sameElement } from '../rule/compose';
import { labelOf, offerOf, targetOptions } from '../rule/offers';
import { useWriting } from '../rule/writing';
import { nextState, painted, withElement, withoutElement, type Grid } from './grid';
import classes from './Grid.module.css';
import { stateWords } from './stateWords';

interface Props {
  grid: Grid;
  onChange: (grid: Grid) => void;
}

const brushes: (State | 'nothing')[] = ['shown', 'hidden', 'requiredToMoveOn', 'requiredToSave', 'locked', 'nothing'];

/** Each choice of the driver says how each element is: pressed or painted crossing by crossing. */
export function GridEditor({ grid, onChange }: Props) {
  const writing = useWriting();
  const [brush, setBrush] = useState<State | 'nothing'>('shown');
  const painting = useRef<State | null>(undefined);
  const table = useRef<HTMLTableElement>(null);
  const driver = offerOf(writing, grid.driver);
  const state = brush === 'nothing' ? null : brush;

  function toggle(value: string) {
    const element = JSON.parse(value) as Element;
    const at = grid.elements.findIndex((one) => sameElement(one, element));
    onChange(at >= 0 ? withoutElement(grid, at) : withElement(grid, element));
  }

  function walk(event: KeyboardEvent, e: number, c: number) {
    const by = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] }[event.key];
    if (by) {
      event.preventDefault();
      table.current?.querySelector<HTMLElement>(`[data-crossing="${e + by[0]!}-${c + by[1]!}"]`)?.focus();
    }
  }

  return (
    <div className={classes.grid}>
      <div className={classes.brushes}>
        <span className={classes.caption}>Press a crossing to make it</span>
        <SegmentedControl
          size="xs"
          aria-label="What a pressed crossing becomes"
          data={brushes.map((value) => ({ value, label: value === 'nothing' ? 'not said' : stateWords[value] }))}
          value={brush}
          onChange={(value) => setBrush(value as State | 'nothing')}
        />
      </div>
      <div className={classes.scroll}>
        <table
          ref={table}
          className={classes.table}
          onPointerUp={() => (painting.current = undefined)}
          onPointerLeave={() => (painting.current = undefined)}
        >
          <thead>
            <tr>
              <th scope="col">{driver?.label}</th>
              {grid.choices.map(({ label }) => (
                <th key={label} scope="col" className={classes.choice}>
                  {label}
                </th>
              ))}
              <td />
            </tr>
          </thead>
          <tbody>
            {grid.elements.map((element, e) => (
              <tr key={`${element.kind}:${element.key}`}>
                <th scope="row">{labelOf(writing, element)}</th>
                {grid.choices.map(({ label }, c) => {
                  const states = grid.states[e]![c]!;
                  const words = states.map((one) => stateWords[one]).join(', ') || '—';
                  return (
                    <td key={label}>
                      <button
                        type="button"
                        className={classes.crossing}
                        data-crossing={`${e}-${c}`}
                        data-states={states.join(' ')}
                        aria-label={`${labelOf(writing, element)}, ${label}: ${words}`}
                        onKeyDown={(event) => walk(event, e, c)}
                        onPointerDown={() => (painting.current = nextState(states, state))}
                        onPointerEnter={() => painting.current !== undefined && onChange(painted(grid, e, c, painting.current))}
                        onClick={() => onChange(painted(grid, e, c, nextState(states, state)))}
                      >
                        {words}
                      </button>
                    </td>
                  );
                })}
                <td>
                  <ActionIcon
                    variant="subtle"
                    size="sm"
                    aria-label={`Take ${labelOf(writing, element)} away`}
                    onClick={() => onChange(withoutElement(grid, e))}
                  >
                    <IconX size={13} />
                  </ActionIcon>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <Chip
        blank="element"
        label={grid.elements.length === 0 ? 'choose what each choice shows' : '+ element'}
        isMissing={grid.elements.length === 0}
        isNext={grid.elements.length === 0}
        options={() => targetOptions(writing, ({ kind }) => kind !== 'record')}
        chosen={grid.elements.map((element) => JSON.stringify({ kind: element.kind, key: element.key }))}
        onToggle={toggle}
        onPick={toggle}
      />
    </div>
  );
}
