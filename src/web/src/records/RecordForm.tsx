import { Button, Text, Title } from '@mantine/core';
import { notifications } from '@mantine/notifications';
import { useCallback, useMemo, useState } from 'react';
import { useNavigate } from 'react-router-dom';
import type { Problem } from '../api/client';
import type { ElementKind, RecordType, RecordView } from '../api/generated';
import type { Values } from '../engine/answers';
import type { OpenRecord } from '../engine/openRecord';
import { useField, useFromRecord, useSummary } from '../engine/useRecord';
import { Place } from '../frame/Place';
import { useUnsavedWarning } from '../frame/useUnsavedWarning';
import { fieldLabel } from '../sheet/lookUp';
import { Sheet, tabOf } from '../sheet/Sheet';
import { FormChoice } from './FormChoice';
import { History } from './History';
import { Missing } from './Missing';
import { Refused } from './Refused';
import classes from './RecordForm.module.css';
import { StageLine } from './StageLine';
import { useOpenRecord } from './useOpenRecord';
import { Why } from './Why';

interface Props {
  type: RecordType;
  stored: RecordView;
  typed: Values;
  /** Stores the changes; what is not among them and stays typed is asked for once that is done. */
  onSave: (changes: Values, staying: () => Values, move?: string) => Promise<void>;
  onTakeOver: (changes: Values) => Promise<void>;
}

/** The record page: stages, the live form, what is missing, and saving. What was typed stays until it is saved. */
export function RecordForm({ type, stored, typed, onSave, onTakeOver }: Props) {
  const record = useOpenRecord(type, stored, typed);
  const { isLive, changed, setAside, forms } = useSummary(record);
  const navigate = useNavigate();
  const [tab, setTab] = useState('');
  const [refused, setRefused] = useState<{ problem: Problem; at: Values }>();
  const [isSaving, setSaving] = useState(false);
  const workflow = type.workflows.find((w) => w.key === stored.setting.workflow) ?? type.workflows[0]!;
  const leading = workflow.moves.filter((move) => move.from === stored.setting.stage);
  const moves = leading.filter((move) => !move.roles?.length || move.roles.some((role) => stored.setting.roles?.includes(role)));

  useUnsavedWarning(changed > 0 || setAside.length > 0);

  async function save(move?: { key: string; label: string }) {
    setSaving(true);
    setRefused(undefined);
    try {
      const before = new Map(record.trial);
      const { changes, setAside } = await record.changes();
      // What is typed while the server answers stays typed.
      const since = () => [...record.trial].filter(([field, value]) => before.get(field) !== value);
      await onSave(changes, () => ({ ...setAside, ...Object.fromEntries(since()) }), move?.key);
      notifications.show({ message: move ? `Saved. ${move.label}: done.` : 'Saved.', autoClose: 2500 });
    } catch (refusal) {
      const problem = refusal as Problem;
      const at = Object.fromEntries((problem.refusals ?? []).map(({ field }) => [field ?? '', record.value(field ?? '')]));
      setRefused({ problem, at });
    } finally {
      setSaving(false);
    }
  }

  function goTo(field: string, form?: string | null) {
    if (form) {
      void navigate({ search: form === type.forms[0]?.key ? '' : `?form=${form}` });
      return;
    }
    setTab(tabOf({ recordType: type }, 'field', field, stored.form) ?? tab);
    window.setTimeout(() => document.getElementById(`field-${field}`)?.focus(), 50);
  }

  // A reason goes away once its field has another value than the one that was refused.
  const standing = useFromRecord(record, () =>
    (refused?.problem.refusals ?? [])
      .map((r) => (!r.field || record.value(r.field) === refused?.at[r.field] ? '1' : '0'))
      .join(''),
  );
  const reasons = useMemo(() => (refused?.problem.refusals ?? []).filter((_, i) => standing[i] === '1'), [refused, standing]);
  const refusals = useMemo(() => Object.fromEntries(reasons.filter((r) => r.field).map((r) => [r.field!, r.message])), [reasons]);
  const why = useCallback(
    (kind: ElementKind, key: string) => (kind === 'tab' ? null : <Why record={record} kind={kind} elementKey={key} />),
    [record],
  );
  return (
    <main className={classes.page} data-live={isLive}>
      <Place
        steps={[
          { label: 'Record types', to: '/' },
          { label: type.label, to: `/types/${type.key}/records` },
          { label: stored.id ? `No. ${stored.id}` : 'New' },
        ]}
      />
      <div className={classes.head}>
        <div className={classes.titleLine}>
          <RecordTitle type={type} record={record} />
          <FormChoice forms={type.forms} relevant={forms} current={stored.form} />
        </div>
        <StageLine workflow={workflow} stage={stored.setting.stage} />
      </div>
      <div className={classes.sheet}>
        <Sheet type={type} record={record} formKey={stored.form} tab={tab} onTab={setTab} refusals={refusals} aside={why} />
      </div>
      <aside className={classes.side}>
        <div className={classes.actions}>
          <Button variant="default" loading={isSaving} onClick={() => void save()}>
            Save
          </Button>
          {moves.map((move) => (
            <Button key={move.key} loading={isSaving} onClick={() => void save(move)}>
              {move.label}
            </Button>
          ))}
          <Text size="xs" c="dimmed">
            {saying(stored.id === 0, changed, refused !== undefined)}
          </Text>
          {setAside.length > 0 && (
            <Text size="xs" role="status">
              Set aside, and not saved: {setAside.map((field) => fieldLabel({ recordType: type }, field)).join(', ')}. What you
              typed there comes back when the field shows or opens again.
            </Text>
          )}
        </div>
        {refused && (reasons.length > 0 || !refused.problem.refusals) && (
          <Refused
            problem={refused.problem}
            reasons={reasons}
            type={type}
            onGoTo={goTo}
            onTakeOver={() =>
              void record
                .changes()
                .then(({ changes }) => onTakeOver(changes))
                .then(() => setRefused(undefined))
            }
          />
        )}
        <Missing type={type} record={record} moves={leading} onGoTo={goTo} />
        {stored.id !== 0 && <History type={type} id={stored.id} version={stored.version} />}
      </aside>
    </main>
  );
}

/** What the record is called, as it is typed. */
function RecordTitle({ type, record }: { type: RecordType; record: OpenRecord }) {
  const { value } = useField(record, type.titleField);
  return (
    <Title order={2} className={classes.title}>
      {value === null ? `New ${type.label.toLowerCase()}` : String(value)}
    </Title>
  );
}

/** Whether what stands on the page is stored. */
function saying(isNew: boolean, changed: number, isRefused: boolean) {
  if (isRefused) {
    return changed === 0 ? 'That was refused; nothing was saved.' : `Nothing was saved: ${changes(changed)} still here.`;
  }
  if (isNew) {
    return changed === 0 ? 'This record is not saved yet.' : `This record is not saved yet: ${changes(changed)} here.`;
  }
  return changed === 0 ? 'Everything is saved.' : `${changes(changed)} not saved yet.`;
}

const changes = (count: number) => `${count} ${count === 1 ? 'change' : 'changes'}`;
