import { MultiSelect, type MultiSelectProps } from '@mantine/core';
import { only, type Offer } from './offer';

interface Props extends Omit<MultiSelectProps, 'data' | 'value' | 'onChange' | 'onBlur' | 'searchValue'> {
  data: Offer[];
  value: string[];
  onChange: (value: string[]) => void;
  /** Takes in what was typed where that is none of the offers, or several, behind what is chosen already. */
  onTyped?: (text: string) => void;
}

/** Several of what is offered, found by typing. What is typed when one goes on is one more of them where it can be only one. */
export function ChoicesInput({ data, value, onChange, onTyped, ...shared }: Props) {
  return (
    <MultiSelect
      selectFirstOptionOnChange
      {...shared}
      searchable
      data={data}
      value={value}
      onChange={onChange}
      onBlur={(event) => {
        const text = event.currentTarget.value.trim();
        if (shared.readOnly || text === '') {
          return;
        }
        const meant = only(data, text);
        if (!meant) {
          onTyped?.(text);
        } else if (!value.includes(meant.value)) {
          onChange([...value, meant.value]);
        }
      }}
    />
  );
}
