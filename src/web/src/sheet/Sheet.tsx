import { Tabs } from '@mantine/core';
import type { ReactNode } from 'react';
import type { Definition, ElementKind, Field } from '../api/generated';
import type { FormRecord } from '../engine/formRecord';
import { useChanges } from '../engine/useEngine';
import { FieldCell } from './FieldCell';
import lines from './lines.module.css';
import { Said } from './Said';
import classes from './Sheet.module.css';

interface Props {
  definition: Definition;
  record: FormRecord;
  /** Key of the form that is drawn; by default the main form. */
  formKey?: string;
  tab: string;
  onTab: (tab: string) => void;
  /** Draws what is hidden too, dashed; members never see it. */
  showHidden?: boolean;
  /** What stands to the right of an element's label. */
  aside?: (kind: ElementKind, key: string) => ReactNode;
  depends?: (kind: ElementKind, key: string) => boolean;
  isPointedAt?: (kind: ElementKind, key: string) => boolean;
  refusals?: Record<string, string>;
  /** Whether nothing can be typed for the moment. */
  isWaiting?: boolean;
}

/** The form itself: tabs, sections and fields as the record's states say. */
export function Sheet({
  definition,
  record,
  formKey,
  tab,
  onTab,
  showHidden = false,
  aside,
  depends,
  isPointedAt,
  refusals = {},
  isWaiting = false,
}: Props) {
  useChanges(record);
  const form = formOf(definition, formKey);
  const fields = new Map<string, Field>(definition.recordType.fields.map((field) => [field.key, field]));
  const seen = (kind: ElementKind, key: string) => showHidden || record.state(kind, key).isVisible;
  const tabs = form?.tabs.filter((t) => seen('tab', t.key)) ?? [];
  const current = tabs.some((t) => t.key === tab) ? tab : (tabs[0]?.key ?? '');
  return (
    <Tabs
      value={current}
      onChange={(next) => onTab(next ?? '')}
      keepMounted={false}
      classNames={{ root: classes.sheet, tab: classes.tab, panel: classes.panel }}
    >
      <Tabs.List>
        {tabs.map((t) => (
          <Tabs.Tab
            key={t.key}
            value={t.key}
            rightSection={aside?.('tab', t.key)}
            component="div"
            data-hidden={!record.state('tab', t.key).isVisible || undefined}
          >
            {t.label}
            {t.sections.some((s) => s.fields.some((f) => refusals[f])) && <span className={lines.wrong}> !</span>}
          </Tabs.Tab>
        ))}
      </Tabs.List>
      {tabs.map((t) => (
        <Tabs.Panel key={t.key} value={t.key}>
          {!record.isSettled && (
            <p className={lines.wrong} role="alert">
              Some rules go round in a circle for these values, so the fields in it keep what was saved. Change one of them, or
              tell an administrator.
            </p>
          )}
          <Said
            messages={record
              .messages()
              .filter((m) => !m.at || m.at.kind === 'form' || (m.at.kind === 'tab' && m.at.key === t.key))}
          />
          {t.sections
            .filter((section) => seen('section', section.key))
            .map((section) => (
              <section
                key={section.key}
                className={classes.section}
                aria-label={section.label}
                data-section={section.key}
                data-visible={record.state('section', section.key).isVisible}
                data-pointed-at={isPointedAt?.('section', section.key) || undefined}
              >
                <h3 className={classes.heading}>
                  <span className={depends?.('section', section.key) ? lines.depends : ''}>{section.label}</span>
                  {!record.state('section', section.key).isVisible && <span className={lines.word}>hidden</span>}
                  {aside?.('section', section.key)}
                </h3>
                <Said messages={record.messages().filter((m) => m.at?.kind === 'section' && m.at.key === section.key)} />
                <div className={classes.fields}>
                  {section.fields
                    .filter((key) => seen('field', key))
                    .map((key) => (
                      <FieldCell
                        key={key}
                        field={fields.get(key)!}
                        record={record}
                        aside={aside?.('field', key)}
                        depends={depends?.('field', key)}
                        isPointedAt={isPointedAt?.('field', key)}
                        refusal={refusals[key]}
                        isWaiting={isWaiting}
                      />
                    ))}
                </div>
              </section>
            ))}
        </Tabs.Panel>
      ))}
    </Tabs>
  );
}

const formOf = (definition: Definition, key: string | undefined) =>
  definition.recordType.forms.find((form) => form.key === key) ?? definition.recordType.forms[0];

/** The tab on which an element stands. */
export function tabOf(definition: Definition, kind: ElementKind, key: string, formKey?: string): string | undefined {
  const field = kind === 'part' ? key.split('.')[0]! : key;
  return formOf(definition, formKey)?.tabs.find(
    (tab) =>
      (kind === 'tab' && tab.key === key) ||
      tab.sections.some(
        (s) => (kind === 'section' && s.key === key) || ((kind === 'field' || kind === 'part') && s.fields.includes(field)),
      ),
  )?.key;
}
