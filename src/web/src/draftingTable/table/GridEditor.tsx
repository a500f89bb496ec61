import { ActionIcon, Button, SegmentedControl } from '@mantine/core';
import { IconX } from '@tabler/icons-react';
import { useLayoutEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { Element, State } from '../../api/generated';
import { Chip } from '../rule/Chip';
import { sameElement } from '../rule/compose';
import { labelOf, offerOf, targetOptions } from '../rule/offers';
import { isLetter } from '../rule/typing';
import { useWriting } from '../rule/writing';
import { filled, nextState, painted, withElement, withoutElement, type Grid } from './grid';
import classes from './Grid.module.css';
import { allStates, stateWords } from './stateWords';

interface Props {
  grid: Grid;
  onChange: (grid: Grid) => void;
}

/** What can be painted, facet by facet. */
const brushes: (State | 'nothing')[][] = [
  ['shown', 'hidden', 'hiddenAndCleared'],
  ['requiredToMoveOn', 'requiredToSave', 'optional'],
  ['locked', 'open'],
  ['nothing'],
];

const brushWord = (brush: State | 'nothing') => (brush === 'nothing' ? 'not said' : stateWords[brush]);

/** How long letters typed one after another are one word, in milliseconds. */
const pause = 900;

/** Each choice of the driver says how each element is: pressed or painted crossing by crossing. */
export function GridEditor({ grid, onChange }: Props) {
  const writing = useWriting();
  const [brush, setBrush] = useState<State | 'nothing'>('shown');
  const painting = useRef<State | null>(undefined);
  const table = useRef<HTMLTableElement>(null);
  const driver = offerOf(writing, grid.driver);
  const state = brush === 'nothing' ? null : brush;
  const typed = useRef({ word: '', at: 0 });
  /** With what is painted already, also where it has not been drawn yet. */
  const latest = useRef(grid);
  useLayoutEffect(() => {
    latest.current = grid;
  }, [grid]);

  function paint(e: number, c: number, next: State | null) {
    latest.current = painted(latest.current, e, c, next);
    onChange(latest.current);
  }

  function press(event: PointerEvent<HTMLElement>, e: number, c: number) {
    if (event.button === 0) {
      // A finger would hold on to the first crossing otherwise.
      event.currentTarget.releasePointerCapture(event.pointerId);
      painting.current = nextState(latest.current.states[e]![c]!, state);
      paint(e, c, painting.current);
    }
  }

  function toggle(value: string) {
    const element = JSON.parse(value) as Element;
    const at = grid.elements.findIndex((one) => sameElement(one, element));
    onChange(at >= 0 ? withoutElement(grid, at) : withElement(grid, element));
  }

  /** A letter stands for the state that begins with it, and with those typed before it. */
  function type({ key: letter, timeStamp: now }: KeyboardEvent, e: number, c: number) {
    const word = (now - typed.current.at < pause ? typed.current.word : '') + letter.toLowerCase();
    const found = allStates.find((one) => stateWords[one].startsWith(word));
    typed.current = { word: found ? word : letter.toLowerCase(), at: now };
    const next = found ?? allStates.find((one) => stateWords[one].startsWith(letter.toLowerCase()));
    if (next) {
      paint(e, c, next);
    }
  }

  function walk(event: KeyboardEvent, e: number, c: number) {
    const by = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1] }[event.key];
    if (by) {
      event.preventDefault();
      table.current?.querySelector<HTMLElement>(`[data-crossing="${e + by[0]!}-${c + by[1]!}"]`)?.focus();
    } else if (event.key === 'Delete' || event.key === 'Backspace') {
      event.preventDefault();
      paint(e, c, null);
    } else if (isLetter(event)) {
      event.preventDefault();
      type(event, e, c);
    }
  }

  return (
    <div className={classes.grid}>
      <div className={classes.brushes}>
        <span className={classes.caption}>Press a crossing to make it</span>
        {brushes.map((facet) => (
          <SegmentedControl
            key={facet[0]}
            size="xs"
            aria-label={`What a pressed crossing becomes: ${facet.map(brushWord).join(', ')}`}
            data={facet.map((value) => ({ value, label: brushWord(value) }))}
            value={facet.includes(brush) ? brush : ''}
            onChange={(value) => setBrush(value as State | 'nothing')}
          />
        ))}
        {state && grid.states.some((row) => row.some((one) => one.length === 0)) && (
          <Button size="compact-xs" variant="default" onClick={() => onChange(filled(latest.current, state))}>
            All that is not said: {stateWords[state]}
          </Button>
        )}
      </div>
      <div className={classes.scroll}>
        <table
          ref={table}
          className={classes.table}
          onPointerUp={() => (painting.current = undefined)}
          onPointerLeave={() => (painting.current = undefined)}
        >
          <colgroup>
            <col className={classes.elements} />
            {grid.choices.map(({ label }) => (
              <col key={label} className={classes.crossings} />
            ))}
            <col className={classes.removal} />
          </colgroup>
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
                        onPointerDown={(event) => press(event, e, c)}
                        onPointerEnter={() => painting.current !== undefined && paint(e, c, painting.current)}
                        // By a key: a pointer has painted as it came down.
                        onClick={(event) => event.detail === 0 && paint(e, c, nextState(states, state))}
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
                    aria-label={`Delete ${labelOf(writing, element)} from the grid`}
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
