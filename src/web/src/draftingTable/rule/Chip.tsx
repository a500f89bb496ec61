import { Combobox, useCombobox } from '@mantine/core';
import {
  useEffect,
  useEffectEvent,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
  type ComponentPropsWithRef,
  type ReactNode,
} from 'react';
import classes from './Chip.module.css';
import { takeFocus, useFocusBack } from './focus';
import { isLetter } from './typing';
import { useWalk } from './walk';

export interface ChipOption {
  value: string;
  label: string;
  group?: string;
  /** What stands beside it: of which type it is, where it stands, what it is now. */
  note?: string;
}

interface Props {
  /** Which blank of the sentence this is. */
  blank: string;
  label: ReactNode;
  /** The label where it is no plain text, for those who cannot see it. */
  spoken?: string;
  /** The likeliest first; asked for when the list is opened. */
  options: () => ChipOption[];
  isMissing?: boolean;
  isWrong?: boolean;
  /** Opens at once, as the next blank to be filled in. */
  isNext?: boolean;
  /** What the typed text itself stands for, where any value may be given. */
  typed?: (text: string) => ChipOption[];
  /** What typing can go on with: it takes the place of the typed text, and the list stays open. */
  completions?: (text: string) => ChipOption[];
  inputType?: 'text' | 'date' | 'datetime-local';
  placeholder?: string;
  /** Told of every key typed, where the options are looked up elsewhere. */
  onSearch?: (text: string) => void;
  /** Whether it adds to what stands before it, or may be left unsaid: no blank that the sentence waits for. */
  isFurther?: boolean;
  /** The value that stands there: it is marked as the list opens, so that Enter keeps it. */
  current?: string;
  /** Values that are taken already; with it, several can be taken at once. */
  chosen?: string[];
  onToggle?: (value: string) => void;
  onPick: (value: string) => void;
}

/** A list longer than this is filtered by typing. */
const mostDrawn = 150;
const completing = 'go on with ';

/** With less room than this below it, a list stands above: it covers what was just written, and is to do so seldom. */
const enoughRoom = 220;

/** A list keeps off the strip above and the edges of the window, and is as high as there is room. */
const edges = { top: 46, bottom: 6, left: 6, right: 6 };
const beside = {
  flip: false,
  shift: { padding: edges },
  size: {
    padding: edges,
    apply: ({ availableHeight, elements }: { availableHeight: number; elements: { floating: HTMLElement } }) =>
      elements.floating.style.setProperty('--room', `${availableHeight}px`),
  },
};

/** A blank of a sentence: press it and pick, type to filter, walk with the arrow keys. What is typed while it has the focus begins its list. */
export function Chip(props: Props) {
  const { isNext = false } = props;
  const [opening, setOpening] = useState({ count: isNext ? 1 : 0, typed: '' });
  const [wasNext, setWasNext] = useState(isNext);
  const open = (typed = '') => setOpening(({ count }) => ({ count: count + 1, typed }));
  if (isNext !== wasNext) {
    setWasNext(isNext);
    if (isNext) {
      open();
    }
  }
  // Most are only read, and a list for each would be most of what a rule costs.
  return opening.count > 0 ? (
    <PickingChip key={opening.count} {...props} begun={opening.typed} onReopen={open} />
  ) : (
    <ChipButton {...buttonOf(props)} onClick={() => open()} onLetter={open} />
  );
}

const buttonOf = ({ blank, label, spoken, isMissing, isWrong, isFurther }: Props) => ({
  blank,
  label,
  spoken,
  isMissing,
  isWrong,
  isFurther,
});

type ButtonProps = Pick<Props, 'blank' | 'label' | 'spoken' | 'isMissing' | 'isWrong' | 'isFurther'> &
  Pick<ComponentPropsWithRef<'button'>, 'ref' | 'onClick'> & {
    /** Told of a letter that is typed while it has the focus. */
    onLetter: (letter: string) => void;
  };

export function ChipButton({
  blank,
  label,
  spoken,
  isMissing = false,
  isWrong = false,
  isFurther = false,
  ref,
  onClick,
  onLetter,
}: ButtonProps) {
  return (
    <button
      ref={ref}
      type="button"
      className={classes.chip}
      data-blank={blank}
      data-missing={isMissing || undefined}
      data-wrong={isWrong || undefined}
      data-further={isFurther || undefined}
      aria-label={`${blank}: ${spoken ?? String(label)}`}
      aria-haspopup="listbox"
      onClick={onClick}
      onKeyDown={(event) => {
        if (isLetter(event)) {
          event.preventDefault();
          onLetter(event.key);
        }
      }}
    >
      {label}
    </button>
  );
}

/** A blank that has been pressed: its list opens with it, and the next time with another. */
function PickingChip(props: Props & { begun: string; onReopen: (typed?: string) => void }) {
  const { blank, typed, completions, inputType = 'text', chosen, current, begun, onToggle, onPick, onSearch } = props;
  const walk = useWalk();
  const [search, setSearch] = useState(begun);
  const [isOpen, setOpen] = useState(true);
  /** Whether what is picked next is picked by a key, and whether something was ticked since the list opened. */
  const byKey = useRef(false);
  const hasTicked = useRef(false);
  /** Whether Enter has done all that it is to do: the list takes it for its marked option as well. */
  const isDone = useRef(false);
  const combobox = useCombobox({
    opened: isOpen,
    onOpenedChange: setOpen,
    onDropdownClose: () => {
      combobox.resetSelectedOption();
      setSearch('');
    },
  });
  const { focusSearchInput, selectFirstOption, selectActiveOption, searchRef, targetRef } = combobox;
  useFocusBack(isOpen, searchRef, targetRef);
  const [isAbove, setAbove] = useState(false);
  useLayoutEffect(() => {
    const at = targetRef.current?.getBoundingClientRect();
    if (at) {
      const below = window.innerHeight - at.bottom;
      setAbove(below < enoughRoom && at.top > below);
    }
  }, [targetRef]);
  const mark = useEffectEvent(() => {
    if (begun) {
      onSearch?.(begun);
      selectFirstOption();
    } else if (current !== undefined) {
      selectActiveOption();
    }
  });
  useEffect(() => mark(), []);

  function finish() {
    const button = targetRef.current;
    combobox.closeDropdown();
    walk.goOn(button, byKey.current);
    byKey.current = false;
  }

  function pick(value: string) {
    // To keep what stands there is no edit.
    if (value !== current) {
      onPick(value);
    }
    finish();
  }

  function tick(value: string) {
    hasTicked.current = true;
    onToggle!(value);
  }

  return (
    <Combobox
      store={combobox}
      keepMounted={false}
      width={360}
      position={isAbove ? 'top-start' : 'bottom-start'}
      middlewares={beside}
      onOptionSubmit={(value) => {
        if (isDone.current) {
          isDone.current = false;
          return;
        }
        if (value.startsWith(completing)) {
          setSearch(value.slice(completing.length));
          window.setTimeout(focusSearchInput);
          return;
        }
        pick(value);
      }}
    >
      <Combobox.Target targetType="button">
        <ChipButton
          {...buttonOf(props)}
          onClick={isOpen ? () => combobox.closeDropdown() : () => props.onReopen()}
          onLetter={props.onReopen}
        />
      </Combobox.Target>
      <Combobox.Dropdown className={classes.dropdown}>
        <div role="dialog" aria-label={`Choose: ${blank}`}>
          <Combobox.Search
            ref={takeFocus}
            type={inputType}
            value={search}
            placeholder={props.placeholder ?? (typed ? 'Type a value, or pick' : 'Type to filter')}
            aria-label={`Find ${blank}`}
            onChange={(event) => {
              setSearch(event.currentTarget.value);
              onSearch?.(event.currentTarget.value);
              window.setTimeout(selectFirstOption);
            }}
            onKeyDown={(event) => {
              if (event.key === 'Tab') {
                return;
              }
              byKey.current = event.key === 'Enter';
              isDone.current = false;
              // Several can be taken by keyboard as well: space takes the marked one and goes on; where it belongs to what is typed, Shift with Enter does.
              const isTick = onToggle && (event.key === 'Enter' ? event.shiftKey : event.key === ' ' && search === '');
              if (isTick) {
                if (combobox.getSelectedOptionIndex() < 0) {
                  selectFirstOption();
                }
                const marked = markedOption(event.currentTarget);
                if (marked) {
                  event.preventDefault();
                  tick(marked);
                  isDone.current = event.key === 'Enter';
                  if (event.key === 'Enter') {
                    setSearch('');
                    window.setTimeout(selectFirstOption);
                  }
                }
              } else if (event.key === 'Enter' && hasTicked.current && search === '') {
                // What is ticked is taken, and no other with it.
                event.preventDefault();
                isDone.current = combobox.getSelectedOptionIndex() >= 0;
                finish();
              } else if (event.key === 'Enter' && combobox.getSelectedOptionIndex() < 0) {
                if (current !== undefined && search === '') {
                  event.preventDefault();
                  finish();
                } else {
                  // Enter takes the first, also before it has been marked.
                  selectFirstOption();
                }
              }
            }}
          />
          {isOpen && (
            <Options
              blank={blank}
              options={props.options}
              search={search.trim()}
              typed={typed}
              completions={completions}
              current={current}
              chosen={chosen}
              onToggle={onToggle && tick}
            />
          )}
        </div>
      </Combobox.Dropdown>
    </Combobox>
  );
}

/** The value of the option that is marked in the list of that input; it is marked also where no arrow has led there. */
const markedOption = (input: HTMLElement): string | undefined =>
  input.closest('[role=dialog]')?.querySelector('[data-combobox-selected]')?.getAttribute('value') ?? undefined;

function Options({
  blank,
  options,
  search,
  typed,
  completions,
  current,
  chosen,
  onToggle,
}: Pick<Props, 'blank' | 'options' | 'typed' | 'completions' | 'current' | 'chosen' | 'onToggle'> & { search: string }) {
  const all = useMemo(() => options(), [options]);
  const own = search === '' ? [] : (typed?.(search) ?? []);
  const further = search === '' ? [] : (completions?.(search) ?? []).map((one) => ({ ...one, value: completing + one.value }));
  const words = search.toLowerCase().split(/\s+/);
  const matching = all.filter((option) => {
    const text = `${option.label} ${option.note ?? ''}`.toLowerCase();
    return words.every((word) => text.includes(word));
  });
  // What begins so is more likely than what has it somewhere.
  const begins = (option: ChipOption) => (option.label.toLowerCase().startsWith(search.toLowerCase()) ? 0 : 1);
  const found = search === '' ? matching : matching.toSorted((one, other) => begins(one) - begins(other));
  const drawn = [...own, ...further, ...found.slice(0, mostDrawn)];
  const groups = [...new Set(drawn.map((option) => option.group ?? ''))];
  return (
    <Combobox.Options className={classes.options} aria-label={blank}>
      {groups.map((group) => {
        const members = drawn
          .filter((option) => (option.group ?? '') === group)
          .map((option) => (
            <Combobox.Option
              key={option.value}
              value={option.value}
              tabIndex={-1}
              className={classes.option}
              active={option.value === current || chosen?.includes(option.value)}
            >
              {onToggle && (
                // For the mouse; by keyboard the space bar ticks. Nothing that can be acted on stands within an option.
                <span
                  className={classes.tick}
                  data-tick
                  aria-hidden
                  onClick={(event) => {
                    event.stopPropagation();
                    onToggle(option.value);
                  }}
                >
                  {chosen?.includes(option.value) && '✓'}
                </span>
              )}
              <span className={classes.optionLabel}>{option.label}</span>
              {option.note && <span className={classes.note}>{option.note}</span>}
            </Combobox.Option>
          ));
        return group === '' ? (
          members
        ) : (
          <Combobox.Group key={group} label={group}>
            {members}
          </Combobox.Group>
        );
      })}
      {found.length > mostDrawn && <div className={classes.more}>{found.length - mostDrawn} more: type to filter</div>}
      {drawn.length === 0 && <Combobox.Empty>{typed && search === '' ? 'Type a value.' : 'Nothing like that.'}</Combobox.Empty>}
    </Combobox.Options>
  );
}
