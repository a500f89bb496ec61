import { Button, Menu, Text } from '@mantine/core';
import type { Field } from '../api/generated';
import classes from './Fields.module.css';
import { recordsOf } from './useHoldings';

interface Props {
  field: Field;
  options: { key: string; label: string; retired?: boolean }[];
  /** How many records have each, by its key; undefined until they have been counted. */
  counts: Record<string, number> | undefined;
  onMerge: (from: string, to: string) => void;
  onOffer: (key: string, isOffered: boolean) => void;
  onDrop: (key: string) => void;
}

/** Choices with the records that have them, and what may become of each: another one, none for new records, or nothing. */
export function HeldChoices({ field, options, counts, onMerge, onOffer, onDrop }: Props) {
  return (
    <div>
      <Text size="sm" fw={600}>
        Who has which
      </Text>
      <ul className={classes.choices} aria-label={`Choices of ${field.label}`}>
        {options.map((option) => {
          const held = counts?.[option.key] ?? 0;
          return (
            <li key={option.key}>
              <span>
                {option.label}
                {option.retired && <span className={classes.soft}> no longer offered</span>}
              </span>
              <span className={classes.soft}>{counts ? recordsOf(held) : 'counting…'}</span>
              <Menu position="bottom-end" width={230}>
                <Menu.Target>
                  <Button size="compact-xs" variant="default" aria-label={`What becomes of ${option.label}`}>
                    …
                  </Button>
                </Menu.Target>
                <Menu.Dropdown mah={300} style={{ overflowY: 'auto' }}>
                  <Menu.Item onClick={() => onOffer(option.key, option.retired === true)}>
                    {option.retired ? 'Offer it again' : 'Offer it no longer; records keep it'}
                  </Menu.Item>
                  {counts && held === 0 && options.length > 1 && (
                    <Menu.Item onClick={() => onDrop(option.key)}>Delete it: no record has it</Menu.Item>
                  )}
                  <Menu.Label>Records that have it get instead</Menu.Label>
                  {options
                    .filter(({ key }) => key !== option.key)
                    .map(({ key, label }) => (
                      <Menu.Item key={key} onClick={() => onMerge(option.key, key)}>
                        {label}
                      </Menu.Item>
                    ))}
                </Menu.Dropdown>
              </Menu>
            </li>
          );
        })}
      </ul>
    </div>
  );
}
