import { SegmentedControl, Textarea, TextInput } from '@mantine/core';
import type { Field, Option } from '../api/generated';
import type { Value } from '../engine/answers';
import type { FieldView } from '../engine/drawnRecord';
import type { OpenRecord } from '../engine/openRecord';
import { shown } from '../writing/shown';
import { ChoiceInput } from './ChoiceInput';
import { ChoicesInput } from './ChoicesInput';
import { CompoundInput } from './CompoundInput';
import { DateInput } from './DateInput';
import classes from './FieldInput.module.css';
import { LinkInput } from './LinkInput';
import { NumberInput } from './NumberInput';
import { PersonInput } from './PersonInput';

interface Props {
  field: Field;
  record: OpenRecord;
  view: FieldView;
  isReadOnly: boolean;
  describedBy?: string;
}

/** The input that fits the field's type. */
export function FieldInput({ field, record, view, isReadOnly, describedBy }: Props) {
  const type = field.type;
  const { value } = view;
  const onChange = (next: Value) => record.change(field.key, next);
  const common = {
    id: `field-${field.key}`,
    variant: 'unstyled',
    size: 'sm',
    readOnly: isReadOnly,
    'aria-label': field.label,
    'aria-describedby': describedBy,
  } as const;
  const typing = { onType: (text: string) => record.typing(field.key, text), onDone: onChange };
  const text = value === null || typeof value === 'object' ? '' : String(value);
  switch (type.kind) {
    case 'text':
      return <TextInput {...common} value={text} onChange={(e) => onChange(e.currentTarget.value || null)} />;
    case 'longText':
      return (
        <Textarea
          {...common}
          autosize
          minRows={1}
          maxRows={24}
          value={text}
          onChange={(e) => onChange(e.currentTarget.value || null)}
        />
      );
    case 'date':
    case 'dateTime':
      return <DateInput {...common} {...typing} hasTime={type.kind === 'dateTime'} value={value} />;
    case 'number':
    case 'money':
      return <NumberInput {...common} {...typing} type={type} value={value} />;
    case 'yesNo':
      return (
        <SegmentedControl
          id={common.id}
          size="xs"
          classNames={{ root: classes.answers, label: classes.answer, indicator: classes.given }}
          readOnly={isReadOnly}
          aria-label={field.label}
          data={[
            { value: 'yes', label: 'Yes' },
            { value: 'no', label: 'No' },
            { value: '', label: 'Not answered' },
          ]}
          value={value === null ? '' : value === true ? 'yes' : value === false ? 'no' : ''}
          onChange={(next) => onChange(next === '' ? null : next === 'yes')}
        />
      );
    case 'choice':
      return (
        <ChoiceInput
          {...common}
          clearable={!isReadOnly}
          data={offered(type.options, view.offers, value === null ? [] : [String(value)])}
          value={value === null ? null : String(value)}
          onChange={onChange}
          onTyped={onChange}
        />
      );
    case 'choices':
      return (
        <ChoicesInput
          {...common}
          clearable={!isReadOnly}
          data={offered(type.options, view.offers, [value ?? []].flat() as string[])}
          value={[value ?? []].flat() as string[]}
          onChange={(next) => onChange(next.length === 0 ? null : next)}
          onTyped={(more) => onChange([shown(type, value), more].filter(Boolean).join(', '))}
        />
      );
    case 'fullName':
    case 'address':
      return <CompoundInput field={field} record={record} view={view} isReadOnly={isReadOnly} describedBy={describedBy} />;
    case 'link':
      return (
        <LinkInput
          {...common}
          recordType={type.recordType}
          field={field.key}
          record={record}
          value={value as number | string | null}
        />
      );
    case 'person':
      return <PersonInput {...common} value={text || null} onChange={onChange} />;
  }
}

/** The choices that can be made: those a rule leaves and that are not retired, and what is chosen already. */
function offered(options: Option[], left: string[] | null, chosen: string[]) {
  const known = options
    .filter((o) => chosen.includes(o.key) || (!o.retired && (left === null || left.includes(o.key))))
    .map((o) => ({ value: o.key, label: o.label }));
  // What was typed and is none of them stands there all the same.
  const typed = chosen.filter((key) => !options.some((o) => o.key === key));
  return [...known, ...typed.map((text) => ({ value: text, label: text }))];
}
