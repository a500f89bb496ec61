import { SortableContext, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { ActionIcon, Menu } from '@mantine/core';
import { IconArrowDown, IconArrowUp, IconDots } from '@tabler/icons-react';
import type { Definition, Form, RecordType, Section, Tab } from '../api/generated';
import { Begin } from '../frame/Begin';
import { Typed } from '../frame/Typed';
import { isNamed } from '../workflow/edits';
import { idOf } from './dragging';
import {
  withFieldAt,
  withNewSection,
  withoutSection,
  withoutTab,
  withSection,
  withSectionCopied,
  withSectionMoved,
  withSectionOn,
  withSectionOnNewTab,
  withTab,
  withTabMoved,
  withWidth,
} from './edits';
import classes from './Forms.module.css';
import { Grip } from './Grip';
import { Place } from './Place';

interface Props {
  definition: Definition;
  form: Form;
  tab: Tab;
  /** Its place among the tabs. */
  at: number;
  onForm: (change: (form: Form) => Form) => void;
  onType: (type: RecordType) => void;
}

/** A tab with its sections, and in them their fields. */
export function TabDrawing({ definition, form, tab, at, onForm, onType }: Props) {
  const { attributes, listeners, setNodeRef, transform, isDragging } = useSortable({ id: idOf.tab(tab.key) });
  return (
    <div
      ref={setNodeRef}
      className={classes.tab}
      data-tab={tab.key}
      data-dragging={isDragging || undefined}
      style={transform ? { transform: `translateY(${transform.y}px)` } : undefined}
    >
      <div className={classes.tabHead}>
        <Grip what={`tab ${tab.label}`} attributes={attributes} listeners={listeners} />
        <Typed
          aria-label={`Name of the tab ${tab.label}`}
          value={tab.label}
          onDone={(label) => label && onForm((one) => withTab(one, tab.key, { label }))}
        />
        <UpAndDown
          what={`tab ${tab.label}`}
          isFirst={at === 0}
          isLast={at === form.tabs.length - 1}
          onMove={(by) => onForm((one) => withTabMoved(one, tab.key, by))}
        />
        <Menu position="bottom-end">
          <Menu.Target>
            <ActionIcon variant="subtle" size="md" aria-label={`More for the tab ${tab.label}`}>
              <IconDots size={15} />
            </ActionIcon>
          </Menu.Target>
          <Menu.Dropdown>
            <Menu.Item
              disabled={tab.sections.length > 0 || form.tabs.length === 1 || isNamed(definition, tab.key)}
              onClick={() => onForm((one) => withoutTab(one, tab.key))}
            >
              Delete the tab (once it is empty, and no rule names it)
            </Menu.Item>
          </Menu.Dropdown>
        </Menu>
      </div>
      <SortableContext items={tab.sections.map(({ key }) => idOf.section(key))} strategy={verticalListSortingStrategy}>
        {tab.sections.map((section, i) => (
          <SectionDrawing
            key={section.key}
            definition={definition}
            form={form}
            tab={tab}
            section={section}
            at={i}
            onForm={onForm}
            onType={onType}
          />
        ))}
      </SortableContext>
      <Begin what={`section on ${tab.label}`} onBegin={(label) => onForm((one) => withNewSection(one, tab.key, label))}>
        Add the section
      </Begin>
    </div>
  );
}

function SectionDrawing({ definition, form, tab, section, at, onForm, onType }: Props & { section: Section }) {
  const { recordType: type } = definition;
  const others = form.tabs.filter(({ key }) => key !== tab.key);
  const otherForms = type.forms.filter(
    ({ key, tabs }) => key !== form.key && !tabs.some((one) => one.sections.some((other) => other.key === section.key)),
  );
  const { attributes, listeners, setNodeRef, transform, isDragging } = useSortable({ id: idOf.section(section.key) });
  return (
    <div
      ref={setNodeRef}
      className={classes.section}
      data-section={section.key}
      data-dragging={isDragging || undefined}
      style={transform ? { transform: `translateY(${transform.y}px)` } : undefined}
    >
      <div className={classes.sectionHead}>
        <Grip what={`section ${section.label}`} attributes={attributes} listeners={listeners} />
        <Typed
          aria-label={`Name of the section ${section.label}`}
          value={section.label}
          onDone={(label) => label && onForm((one) => withSection(one, section.key, { label }))}
        />
        <UpAndDown
          what={`section ${section.label}`}
          isFirst={at === 0}
          isLast={at === tab.sections.length - 1}
          onMove={(by) => onForm((one) => withSectionMoved(one, section.key, by))}
        />
        <Menu position="bottom-end">
          <Menu.Target>
            <ActionIcon variant="subtle" size="md" aria-label={`More for the section ${section.label}`}>
              <IconDots size={15} />
            </ActionIcon>
          </Menu.Target>
          <Menu.Dropdown>
            <Menu.Label>Side by side</Menu.Label>
            {[null, 1, 2, 3, 4].map((columns) => (
              <Menu.Item
                key={columns}
                leftSection={(section.columns ?? null) === columns ? '✓' : ' '}
                onClick={() => onForm((one) => withSection(one, section.key, { columns }))}
              >
                {columns === null ? 'As many as fit' : columns === 1 ? 'One column' : `${columns} columns`}
              </Menu.Item>
            ))}
            <Menu.Divider />
            {others.map(({ key, label }) => (
              <Menu.Item key={key} onClick={() => onForm((one) => withSectionOn(one, section.key, key))}>
                To the tab {label}
              </Menu.Item>
            ))}
            <Menu.Item onClick={() => onForm((one) => withSectionOnNewTab(one, section))}>To a tab of its own</Menu.Item>
            {otherForms.map(({ key, label }) => (
              <Menu.Item key={key} onClick={() => onType(withSectionCopied(type, section, key))}>
                Also on the form {label}
              </Menu.Item>
            ))}
            <Menu.Item
              disabled={isNamed(definition, section.key)}
              onClick={() => onForm((one) => withoutSection(one, section.key))}
            >
              Delete the section{isNamed(definition, section.key) ? ' (a rule or an example names it)' : ''}
            </Menu.Item>
          </Menu.Dropdown>
        </Menu>
      </div>
      <Place
        id={idOf.fieldsOf(section.key)}
        label={`the section ${section.label}`}
        fields={section.fields}
        type={type}
        sections={form.tabs.flatMap(({ sections }) => sections)}
        section={section}
        onPlace={(field, to) => onForm((one) => withFieldAt(one, field, to, null))}
        onWidth={(field, width) =>
          onForm((one) => withSection(one, section.key, { widths: withWidth(section.widths, field, width) }))
        }
      />
    </div>
  );
}

interface UpAndDownProps {
  what: string;
  isFirst: boolean;
  isLast: boolean;
  onMove: (by: number) => void;
}

const UpAndDown = ({ what, isFirst, isLast, onMove }: UpAndDownProps) => (
  <>
    <ActionIcon variant="subtle" size="md" aria-label={`Move the ${what} up`} disabled={isFirst} onClick={() => onMove(-1)}>
      <IconArrowUp size={15} />
    </ActionIcon>
    <ActionIcon variant="subtle" size="md" aria-label={`Move the ${what} down`} disabled={isLast} onClick={() => onMove(1)}>
      <IconArrowDown size={15} />
    </ActionIcon>
  </>
);
