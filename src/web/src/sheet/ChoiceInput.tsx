import { Select, type SelectProps } from '@mantine/core';
import { only, type Offer } from './offer';

interface Props extends Omit<SelectProps, 'data' | 'onBlur' | 'searchValue'> {
  data: Offer[];
  /**
   * Takes in what was typed where that is none of the offers, or several: nothing typed is lost where one goes on. Without it what is
   * chosen already stands there again.
   */
  onTyped?: (text: string | null) => void;
  /** Whether there is more to choose than what is offered at the moment: then nobody can tell here what a text means. */
  isPartial?: boolean;
}

/** One of several, found by typing. What is typed when one goes on is chosen where it can be only one of them. */
export function ChoiceInput({ data, value = null, onChange, onTyped, isPartial = false, ...shared }: Props) {
  const label = data.find((one) => one.value === value)?.label ?? '';
  return (
    <Select
      selectFirstOptionOnChange
      {...shared}
      searchable
      data={data}
      value={value}
      onChange={onChange}
      onBlur={(event) => {
        const text = event.currentTarget.value.trim();
        if (shared.readOnly || text === label.trim()) {
          return;
        }
        const meant = isPartial ? undefined : only(data, text);
        if (meant) {
          onChange?.(meant.value, meant);
        } else {
          onTyped?.(text || null);
        }
      }}
    />
  );
}
