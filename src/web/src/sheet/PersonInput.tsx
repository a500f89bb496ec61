import { useQuery } from '@tanstack/react-query';
import { peopleQuery } from '../api/people';
import { ChoiceInput } from './ChoiceInput';

interface Props {
  id: string;
  variant: 'unstyled';
  size: 'sm';
  readOnly: boolean;
  value: string | null;
  onChange: (value: string | null) => void;
}

/** One of the people who can sign in. */
export function PersonInput({ value, onChange, ...common }: Props) {
  const people = useQuery(peopleQuery).data ?? [];
  const data = people.map((person) => ({ value: person.userName, label: person.displayName }));
  return (
    <ChoiceInput
      {...common}
      clearable={!common.readOnly}
      data={value === null || data.some((d) => d.value === value) ? data : [...data, { value, label: value }]}
      value={value}
      onChange={onChange}
      onTyped={onChange}
    />
  );
}
