import { Button, Center, Loader, Text, Title } from '@mantine/core';
import { useQueries, useQuery } from '@tanstack/react-query';
import { Link, useParams, useSearchParams } from 'react-router-dom';
import { answered, type Problem } from '../api/client';
import { readFormerRecord, readRecord, type RecordType, type RecordView } from '../api/generated';
import { usePeople } from '../api/people';
import { readBits } from '../engine/elementState';
import { Place } from '../frame/Place';
import { useRecordType } from '../records/queries';
import { StageLine } from '../records/StageLine';
import { useNamed } from '../records/useNamed';
import { formLabel } from '../sheet/lookUp';
import { when } from '../writing/when';
import classes from './ReadingPage.module.css';

/** A record as it is, or as one of its saves left it, to be read and printed: what this person may see of it, on all forms that apply. */
export function ReadingPage() {
  const id = Number(useParams().id);
  const [search] = useSearchParams();
  const version = Number(search.get('version')) || undefined;
  const read = (form?: string) => ({
    queryKey: ['reading', id, version, form],
    queryFn: () =>
      version
        ? answered(readFormerRecord({ path: { id, version }, query: { form } }))
        : answered(readRecord({ path: { id }, query: { form, reading: true } })),
    gcTime: 0,
  });
  const first = useQuery(read());
  const type = useRecordType(first.data?.recordType, first.data?.edition);
  const others = useQueries({ queries: (first.data?.forms ?? []).filter((form) => form !== first.data?.form).map(read) });
  const problem = (first.error ?? type.error) as Problem | null;
  if (!first.data || !type.data || others.some(({ isPending }) => isPending)) {
    return <Center h="100%">{problem ? <Text role="alert">{problem.detail}</Text> : <Loader />}</Center>;
  }
  const forms = [first.data, ...others.flatMap(({ data }) => data ?? [])];
  return <Page type={type.data.recordType} id={id} version={version} forms={forms} />;
}

function Page({ type, id, version, forms }: { type: RecordType; id: number; version?: number; forms: RecordView[] }) {
  const nameOf = usePeople();
  const [record] = forms;
  if (!record) {
    return null;
  }
  const workflow = type.workflows.find(({ key }) => key === record.setting.workflow) ?? type.workflows[0];
  const title = String((record.values as Record<string, unknown>)[type.titleField] ?? '') || `${type.label} without a title`;
  return (
    <main className={classes.page} tabIndex={0}>
      <Place
        steps={[
          { label: 'Record types', to: '/' },
          { label: type.label, to: `/types/${type.key}/records` },
          { label: `No. ${id}`, to: `/records/${id}` },
          { label: version ? 'As it was' : 'Reading' },
        ]}
      >
        <Button variant="default" onClick={() => window.print()}>
          Print
        </Button>
      </Place>
      <article className={classes.paper}>
        <header className={classes.head}>
          <Title order={2}>{title}</Title>
          <Text size="sm">
            {type.label} No. {id}
            {record.changedAt && `, saved by ${nameOf(record.changedBy ?? undefined)}, ${when(record.changedAt)}`}
          </Text>
          {version !== undefined && (
            <Text size="sm" role="status">
              As it was after that save, under edition {record.edition}. <Link to={`/records/${id}`}>Open it as it is now</Link>
            </Text>
          )}
          {workflow && <StageLine workflow={workflow} stage={record.setting.stage} />}
        </header>
        {forms.map((form, i) => (
          <FormRead key={form.form} type={type} record={form} isNamed={forms.length > 1} before={forms.slice(0, i)} />
        ))}
      </article>
    </main>
  );
}

const statesOf = (record: RecordView) =>
  new Map(record.states.map(({ element, bits }) => [`${element.kind}:${element.key}`, readBits(bits)]));

interface FormReadProps {
  type: RecordType;
  record: RecordView;
  isNamed: boolean;
  /** The forms above it: what stands on several is read once. */
  before: RecordView[];
}

function FormRead({ type, record, isNamed, before }: FormReadProps) {
  const written = useNamed();
  const states = statesOf(record);
  const told = before.map(statesOf);
  const form = type.forms.find(({ key }) => key === record.form);
  const sections = (form?.tabs ?? []).flatMap((tab) =>
    tab.sections.map((section) => ({
      ...section,
      tab: tab.label,
      fields: section.fields.filter(
        (key) =>
          states.get(`field:${key}`)?.isVisible === true && !told.some((above) => above.get(`field:${key}`)?.isVisible === true),
      ),
    })),
  );
  const shown = sections.filter(({ fields }) => fields.length > 0);
  return shown.length === 0 ? null : (
    <>
      {isNamed && <h3 className={classes.form}>{formLabel({ recordType: type }, record.form)}</h3>}
      {shown.map((section) => (
        <section key={section.key} className={classes.section} aria-label={section.label}>
          <h4>
            {section.label} <small>{section.tab}</small>
          </h4>
          <dl>
            {section.fields.map((key) => {
              const field = type.fields.find((one) => one.key === key);
              const value = (record.values as Record<string, never>)[key] ?? null;
              const linked = record.linked.find(
                (one) => field?.type.kind === 'link' && one.recordType === field.type.recordType && one.number === value,
              );
              return (
                <div key={key} data-field={key} data-long={field?.type.kind === 'longText' || undefined}>
                  <dt>{field?.label ?? key}</dt>
                  <dd>{(linked ? `${linked.title} (No. ${linked.number})` : written(field?.type, value)) || '—'}</dd>
                </div>
              );
            })}
          </dl>
        </section>
      ))}
    </>
  );
}
