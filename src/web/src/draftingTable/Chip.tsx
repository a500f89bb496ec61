import { Combobox, useCombobox } from '@mantine/core';
import { useEffect, useState, type ComponentPropsWithRef } from 'react';
import classes from './Chip.module.css';

export interface ChipOption {
  value: string;
  label: string;
  group?: string;
}

interface Props {
  /** Which blank of the sentence this is. */
  blank: string;
  label: string;
  options: ChipOption[];
  isMissing?: boolean;
  isWrong?: boolean;
  /** The option that the typed text itself stands for, where any value may be given. */
  typed?: (text: string) => ChipOption | null;
  inputType?: 'text' | 'date' | 'datetime-local';
  onPick: (value: string) => void;
}

/** A blank of a sentence: press it and pick, type to filter, walk with the arrow keys. */
export function Chip(props: Props) {
  const [isUsed, setUsed] = useState(false);
  // Most are only read, and a list for each would be most of what a rule costs.
  return isUsed ? <PickingChip {...props} /> : <ChipButton {...props} onClick={() => setUsed(true)} />;
}

type ButtonProps = Pick<Props, 'blank' | 'label' | 'isMissing' | 'isWrong'> & ComponentPropsWithRef<'button'>;

function ChipButton({ blank, label, isMissing = false, isWrong = false, ref, onClick }: ButtonProps) {
  return (
    <button
      ref={ref}
      type="button"
      className={classes.chip}
      data-blank={blank}
      data-missing={isMissing || undefined}
      data-wrong={isWrong || undefined}
      aria-label={`${blank}: ${label}`}
      aria-haspopup="listbox"
      onClick={onClick}
    >
      {label}
    </button>
  );
}

/** A blank that has been pressed: its list opens with it. */
function PickingChip({ blank, label, options, isMissing, isWrong, typed, inputType = 'text', onPick }: Props) {
  const [search, setSearch] = useState('');
  const combobox = useCombobox({
    onDropdownOpen: () => combobox.focusSearchInput(),
    onDropdownClose: () => {
      combobox.resetSelectedOption();
      combobox.focusTarget();
      setSearch('');
    },
  });
  const { openDropdown } = combobox;
  useEffect(() => {
    openDropdown();
    // Once, since it was the press that brought this about.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  const own = search.trim() === '' ? null : typed?.(search.trim());
  const found = options.filter((option) => option.label.toLowerCase().includes(search.trim().toLowerCase()));
  const groups = [...new Set(found.map((option) => option.group ?? ''))];
  return (
    <Combobox
      store={combobox}
      keepMounted={false}
      width={270}
      position="bottom-start"
      onOptionSubmit={(value) => {
        onPick(value);
        combobox.closeDropdown();
      }}
    >
      <Combobox.Target targetType="button">
        <ChipButton
          blank={blank}
          label={label}
          isMissing={isMissing}
          isWrong={isWrong}
          onClick={() => combobox.toggleDropdown()}
        />
      </Combobox.Target>
      <Combobox.Dropdown className={classes.dropdown}>
        <Combobox.Search
          type={inputType}
          value={search}
          placeholder={typed ? 'Type a value, or pick' : 'Type to filter'}
          aria-label={`Find ${blank}`}
          onChange={(event) => {
            setSearch(event.currentTarget.value);
            window.setTimeout(() => combobox.selectFirstOption());
          }}
        />
        <Combobox.Options mah={250} className={classes.options}>
          {own && <Combobox.Option value={own.value}>{own.label}</Combobox.Option>}
          {groups.map((group) => {
            const members = found
              .filter((option) => (option.group ?? '') === group)
              .map((option) => (
                <Combobox.Option key={option.value} value={option.value}>
                  {option.label}
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
          {!own && found.length === 0 && (
            <Combobox.Empty>{typed && search === '' ? 'Type a value.' : 'Nothing like that.'}</Combobox.Empty>
          )}
        </Combobox.Options>
      </Combobox.Dropdown>
    </Combobox>
  );
}
