import { Tabs } from '@mantine/core';
import { memo, useMemo, type ReactNode } from 'react';
import type { Definition, ElementKind, Field, RecordType, Section, Tab } from '../api/generated';
import type { OpenRecord } from '../engine/openRecord';
import { useContainer, useElement, useFromRecord, useSummary } from '../engine/useRecord';
import { FieldCell } from './FieldCell';
import lines from './lines.module.css';
import { Said } from './Said';
import classes from './Sheet.module.css';

interface Props {
  type: RecordType;
  record: OpenRecord;
  /** Key of the form that is drawn; by default the main form. */
  formKey?: string;
  tab: string;
  onTab: (tab: string) => void;
  /** Draws what is hidden too, dashed; members never see it. */
  showHidden?: boolean;
  /** What stands to the right of an element's label. These three are the same functions at every drawing, or all is drawn anew. */
  aside?: (kind: ElementKind, key: string) => ReactNode;
  depends?: (kind: ElementKind, key: string) => boolean;
  isPointedAt?: (kind: ElementKind, key: string) => boolean;
  refusals?: Record<string, string>;
}

const nothing: Record<string, string> = {};

/** The form itself: tabs, sections and fields as the record's states say. Each draws itself anew when its own state differs. */
export const Sheet = memo(function Sheet({ type, formKey, tab, onTab, refusals = nothing, ...shared }: Props) {
  const { record, showHidden = false, aside } = shared;
  const form = formOf(type, formKey);
  const fields = useMemo(() => new Map(type.fields.map((field) => [field.key, field])), [type]);
  const seen = useFromRecord(
    record,
    () =>
      (form?.tabs ?? [])
        .filter((t) => showHidden || record.state('tab', t.key).isVisible)
        .map((t) => t.key)
        .join(' '),
    'tabs',
  ).split(' ');
  const tabs = form?.tabs.filter((t) => seen.includes(t.key)) ?? [];
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
          <Tabs.Tab key={t.key} value={t.key}>
            <TabLabel record={record} tab={t} />
            {t.sections.some((s) => s.fields.some((f) => refusals[f])) && <span className={lines.wrong}> !</span>}
          </Tabs.Tab>
        ))}
      </Tabs.List>
      {tabs.map((t) => (
        <Tabs.Panel key={t.key} value={t.key}>
          {aside && (
            <div className={classes.tabAside}>
              <span className={classes.tabName}>{t.label}</span>
              {aside('tab', t.key)}
            </div>
          )}
          <Above record={record} tab={t.key} />
          {t.sections.map((section) => (
            <SectionOfSheet key={section.key} section={section} fields={fields} refusals={refusals} {...shared} />
          ))}
        </Tabs.Panel>
      ))}
    </Tabs>
  );
});

function TabLabel({ record, tab }: { record: OpenRecord; tab: Tab }) {
  const { isVisible } = useElement(record, 'tab', tab.key);
  return <span data-hidden={!isVisible || undefined}>{tab.label}</span>;
}

/** What is said of the form and the tab as a whole. */
function Above({ record, tab }: { record: OpenRecord; tab: string }) {
  const { isSettled } = useSummary(record);
  const form = useContainer(record, 'form', '');
  const here = useContainer(record, 'tab', tab);
  return (
    <>
      {!isSettled && (
        <p className={lines.wrong} role="alert">
          Some rules go round in a cycle for these values, so the fields in it keep what was saved. Change one of them, or tell an
          administrator.
        </p>
      )}
      <Said messages={form.messages} />
      <Said messages={here.messages} />
    </>
  );
}

interface SectionProps extends Pick<Props, 'record' | 'showHidden' | 'aside' | 'depends' | 'isPointedAt'> {
  section: Section;
  fields: Map<string, Field>;
  refusals: Record<string, string>;
}

const SectionOfSheet = memo(function SectionOfSheet({
  section,
  fields,
  record,
  showHidden = false,
  aside,
  depends,
  isPointedAt,
  refusals,
}: SectionProps) {
  const { state, messages, isMarked } = useContainer(record, 'section', section.key);
  if (!state.isVisible && !showHidden) {
    return null;
  }
  return (
    <section
      className={classes.section}
      aria-label={section.label}
      data-section={section.key}
      data-visible={state.isVisible}
      data-pointed-at={isPointedAt?.('section', section.key) || undefined}
    >
      <h3 className={classes.heading}>
        <span className={depends?.('section', section.key) ? lines.depends : ''}>{section.label}</span>
        {!state.isVisible && <span className={lines.word}>hidden</span>}
        {isMarked && <span className={lines.changed}>changed just now</span>}
        {aside?.('section', section.key)}
      </h3>
      <Said messages={messages} />
      <div className={classes.fields} data-columns={section.columns ?? undefined}>
        {section.fields.map((key) => (
          <FieldCell
            key={key}
            field={fields.get(key)!}
            width={section.widths?.[key]}
            record={record}
            showHidden={showHidden}
            aside={aside}
            depends={depends?.('field', key)}
            isPointedAt={isPointedAt?.('field', key)}
            refusal={refusals[key]}
          />
        ))}
      </div>
    </section>
  );
});

const formOf = (type: RecordType, key: string | undefined) => type.forms.find((form) => form.key === key) ?? type.forms[0];

/** The tab on which an element stands. */
export function tabOf(
  { recordType }: Pick<Definition, 'recordType'>,
  kind: ElementKind,
  key: string,
  formKey?: string,
): string | undefined {
  const field = kind === 'part' ? key.split('.')[0]! : key;
  return formOf(recordType, formKey)?.tabs.find(
    (tab) =>
      (kind === 'tab' && tab.key === key) ||
      tab.sections.some(
        (s) => (kind === 'section' && s.key === key) || ((kind === 'field' || kind === 'part') && s.fields.includes(field)),
      ),
  )?.key;
}
