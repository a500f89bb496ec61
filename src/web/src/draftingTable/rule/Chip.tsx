import { Combobox, useCombobox } from '@mantine/core';
import { useMemo, useState, type ComponentPropsWithRef, type ReactNode } from 'react';
import classes from './Chip.module.css';
import { takeFocus, useFocusBack } from './focus';

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
  /** Values that are taken already; with it, several can be taken at once. */
  chosen?: string[];
  onToggle?: (value: string) => void;
  onPick: (value: string) => void;
}

/** A list longer than this is filtered by typing. */
const mostDrawn = 150;
const completing = 'go on with ';

/** A list keeps off the strip above and the edges of the window, and is as high as there is room. */
const edges = { top: 46, bottom: 6, left: 6, right: 6 };
const beside = {
  flip: { padding: edges },
  shift: { padding: edges },
  size: {
    padding: edges,
    apply: ({ availableHeight, elements }: { availableHeight: number; elements: { floating: HTMLElement } }) =>
      elements.floating.style.setProperty('--room', `${availableHeight}px`),
  },
};

/** A blank of a sentence: press it and pick, type to filter, walk with the arrow keys. */
export function Chip(props: Props) {
  const { isNext = false } = props;
  const [openings, setOpenings] = useState(isNext ? 1 : 0);
  const [wasNext, setWasNext] = useState(isNext);
  if (isNext !== wasNext) {
    setWasNext(isNext);
    setOpenings(isNext ? openings + 1 : openings);
  }
  // Most are only read, and a list for each would be most of what a rule costs.
  return openings > 0 ? (
    <PickingChip key={openings} {...props} onReopen={() => setOpenings(openings + 1)} />
  ) : (
    <ChipButton {...buttonOf(props)} onClick={() => setOpenings(1)} />
  );
}

const buttonOf = ({ blank, label, spoken, isMissing, isWrong }: Props) => ({ blank, label, spoken, isMissing, isWrong });

type ButtonProps = Pick<Props, 'blank' | 'label' | 'spoken' | 'isMissing' | 'isWrong'> &
  Pick<ComponentPropsWithRef<'button'>, 'ref' | 'onClick'>;

export function ChipButton({ blank, label, spoken, isMissing = false, isWrong = false, ref, onClick }: ButtonProps) {
  return (
    <button
      ref={ref}
      type="button"
      className={classes.chip}
      data-blank={blank}
      data-missing={isMissing || undefined}
      data-wrong={isWrong || undefined}
      aria-label={`${blank}: ${spoken ?? String(label)}`}
      aria-haspopup="listbox"
      onClick={onClick}
    >
      {label}
    </button>
  );
}

/** A blank that has been pressed: its list opens with it, and the next time with another. */
function PickingChip(props: Props & { onReopen: () => void }) {
  const {
    blank,
    label,
    spoken,
    isMissing,
    isWrong,
    typed,
    completions,
    inputType = 'text',
    chosen,
    onToggle,
    onPick,
    onSearch,
  } = props;
  const [search, setSearch] = useState('');
  const [isOpen, setOpen] = useState(true);
  const combobox = useCombobox({
    opened: isOpen,
    onOpenedChange: setOpen,
    onDropdownClose: () => {
      combobox.resetSelectedOption();
      setSearch('');
    },
  });
  const { focusSearchInput, selectFirstOption, searchRef, targetRef } = combobox;
  useFocusBack(isOpen, searchRef, targetRef);
  return (
    <Combobox
      store={combobox}
      keepMounted={false}
      width={360}
      position="bottom-start"
      middlewares={beside}
      onOptionSubmit={(value) => {
        if (value.startsWith(completing)) {
          setSearch(value.slice(completing.length));
          window.setTimeout(focusSearchInput);
          return;
        }
        onPick(value);
        combobox.closeDropdown();
      }}
    >
      <Combobox.Target targetType="button">
        <ChipButton
          blank={blank}
          label={label}
          spoken={spoken}
          isMissing={isMissing}
          isWrong={isWrong}
          onClick={isOpen ? () => combobox.closeDropdown() : props.onReopen}
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
              // Enter takes the first, also before it has been marked.
              if (event.key === 'Enter' && combobox.getSelectedOptionIndex() < 0) {
                selectFirstOption();
              }
              // Several can be taken by keyboard as well: space takes the marked one and goes on.
              const marked = event.key === ' ' && search === '' && onToggle ? markedOption(event.currentTarget) : undefined;
              if (marked) {
                event.preventDefault();
                onToggle!(marked);
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
              chosen={chosen}
              onToggle={onToggle}
            />
          )}
        </div>
      </Combobox.Dropdown>
    </Combobox>
  );
}

function markedOption(input: HTMLElement): string | undefined {
  const marked = document.getElementById(input.getAttribute('aria-activedescendant') ?? '');
  return marked?.getAttribute('value') ?? undefined;
}

function Options({
  blank,
  options,
  search,
  typed,
  completions,
  chosen,
  onToggle,
}: Pick<Props, 'blank' | 'options' | 'typed' | 'completions' | 'chosen' | 'onToggle'> & { search: string }) {
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
              active={chosen?.includes(option.value)}
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
