import type { Channel, Rule, Scope } from '../../api/generated';
import { Chip } from './Chip';
import { useWriting } from './writing';

const channels: { value: Channel; label: string }[] = [
  { value: 'form', label: 'through a form' },
  { value: 'list', label: 'through the list' },
  { value: 'import', label: 'through an import' },
  { value: 'api', label: 'through a program' },
];

/** Where the rule applies: everywhere, or only on some forms or through some channels. */
export function ScopeChip({ where, onChange }: { where: Rule['where']; onChange: (where: Rule['where']) => void }) {
  const { type } = useWriting();
  const forms = where?.forms ?? [];
  const through = where?.channels ?? [];
  const chosen = [...forms.map((form) => `form:${form}`), ...through.map((channel) => `channel:${channel}`)];
  const words = [
    ...forms.map((key) => `on ${type.forms.find((form) => form.key === key)?.label ?? key}`),
    ...through.map((key) => channels.find(({ value }) => value === key)!.label),
  ];

  function toggle(value: string) {
    if (value === 'everywhere') {
      onChange(null);
      return;
    }
    const next = chosen.includes(value) ? chosen.filter((one) => one !== value) : [...chosen, value];
    const scope: Scope = {
      forms: next.filter((one) => one.startsWith('form:')).map((one) => one.slice('form:'.length)),
      channels: next.filter((one) => one.startsWith('channel:')).map((one) => one.slice('channel:'.length) as Channel),
    };
    onChange(next.length === 0 ? null : scope);
  }

  return (
    <Chip
      blank="where"
      label={words.length === 0 ? 'everywhere' : `only ${words.join(' or ')}`}
      options={() => [
        { value: 'everywhere', label: 'everywhere' },
        ...type.forms.map(({ key, label }) => ({ value: `form:${key}`, label: `on ${label}`, group: 'Only on these forms' })),
        ...channels.map(({ value, label }) => ({ value: `channel:${value}`, label, group: 'Only by these ways' })),
      ]}
      chosen={chosen}
      onToggle={toggle}
      onPick={toggle}
    />
  );
}
