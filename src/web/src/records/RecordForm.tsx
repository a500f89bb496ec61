import { Button, SegmentedControl, Text, Title } from '@mantine/core';
import { useHotkeys } from '@mantine/hooks';
import { notifications } from '@mantine/notifications';
import { useCallback, useMemo, useRef, useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router-dom';
import type { ElementKind, RecordType } from '../api/generated';
import { usePeople } from '../api/people';
import type { OpenRecord } from '../engine/openRecord';
import { useElement, useField, useFromRecord, useSummary } from '../engine/useRecord';
import { Place } from '../frame/Place';
import { fieldLabel, formLabel } from '../sheet/lookUp';
import { Sheet, tabOf } from '../sheet/Sheet';
import { shown } from '../writing/shown';
import { FormChoice } from './FormChoice';
import { History } from './History';
import { Leaving } from './Leaving';
import { Missing } from './Missing';
import { NewsLine } from './NewsLine';
import { Offered } from './Offered';
import { Reconcile } from './Reconcile';
import { Refused } from './Refused';
import classes from './RecordForm.module.css';
import { StageLine } from './StageLine';
import type { FilledIn } from './useFilling';
import { useOutlook } from './useOutlook';
import { Why } from './Why';

/** The record page: stages, the live form, what is missing, and saving. What was typed stays until it is saved. */
export function RecordForm({ filling }: { filling: FilledIn }) {
  const { type, stored, record, refused, isSaving, here, news, choosing, offered, person } = filling;
  const chooser = useRef<HTMLElement>(null);
  const { isLive, changed, setAside, forms } = useSummary(record);
  const outlook = useOutlook(record);
  const nameOf = usePeople();
  const navigate = useNavigate();
  const [search] = useSearchParams();
  const [tab, setTab] = useState('');
  const isNew = stored.id === 0;
  const workflow = type.workflows.find((w) => w.key === stored.setting.workflow) ?? type.workflows[0]!;
  const leading = workflow.moves.filter((move) => move.from === stored.setting.stage);
  const moves = leading.filter((move) => !move.roles?.length || move.roles.some((role) => stored.setting.roles?.includes(role)));
  const unsaved = useFromRecord(record, () => Object.keys(record.unsaved()).join(' '))
    .split(' ')
    .filter(Boolean);
  const elsewhere = unsaved.filter((field) => tabOf({ recordType: type }, 'field', field, stored.form) === undefined);
  const waiting = setAside.filter((field) => !elsewhere.includes(field));

  async function save(move?: { key: string; label: string }) {
    // What is being typed counts as typed.
    const at = document.activeElement as HTMLElement | null;
    at?.blur();
    if (choosing && choosing.collisions.length > 0) {
      // Nothing is saved over what others did before one has chosen.
      chooser.current?.focus();
      return;
    }
    if ((await filling.save(move?.key)) && move) {
      notifications.show({ message: `${move.label}: done and saved.`, autoClose: 2500 });
    }
    if (at?.isConnected) {
      at.focus({ preventScroll: true });
    }
  }

  useHotkeys(
    [
      ['mod+S', () => void (isSaving || save())],
      [
        'mod+Enter',
        () =>
          void (moves.length === 1 && !isSaving
            ? save(moves[0])
            : document.getElementById('moves')?.querySelector('button')?.focus()),
      ],
    ],
    [],
  );

  function goTo(field: string, form?: string | null) {
    const there = form ?? stored.form;
    setTab(tabOf({ recordType: type }, 'field', field, there) ?? tab);
    if (there !== stored.form) {
      void navigate({ search: addressOf(search, 'form', there === type.forms[0]?.key ? '' : there) });
    }
    focusOn(field);
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
    (kind: ElementKind, key: string) =>
      kind === 'tab' ? null : <Why record={record} kind={kind} elementKey={key} recordType={stored.recordType} />,
    [record, stored.recordType],
  );
  return (
    <main className={classes.page} data-live={isLive}>
      <Place
        steps={[
          { label: 'Record types', to: '/' },
          { label: type.label, to: listAddress(type) },
          { label: isNew ? 'New' : `No. ${stored.id}` },
        ]}
      />
      <Leaving isUnsaved={unsaved.length > 0} onForget={filling.forget} />
      <div className={classes.head}>
        <div className={classes.titleLine}>
          <RecordTitle type={type} record={record} />
          {here.length > 0 && (
            <Text size="sm" role="status" data-here>
              {here.map(nameOf).join(' and ')} {here.length === 1 ? 'has' : 'have'} this record open too.
            </Text>
          )}
          {!isNew && (
            <Link className={classes.read} to={`/records/${stored.id}/reading`}>
              Read or print
            </Link>
          )}
        </div>
        {isNew && type.workflows.length > 1 && (
          <SegmentedControl
            size="xs"
            aria-label="Workflow"
            data={type.workflows.map(({ key, label }) => ({ value: key, label }))}
            value={workflow.key}
            onChange={(next) =>
              void navigate({ search: addressOf(search, 'workflow', next === type.workflows[0]?.key ? '' : next) })
            }
          />
        )}
        <StageLine workflow={workflow} stage={stored.setting.stage} />
        <FormChoice forms={type.forms} relevant={forms} current={stored.form} progress={outlook?.forms} />
      </div>
      <div className={classes.sheet}>
        <Locked record={record} recordType={stored.recordType} />
        <Sheet type={type} record={record} formKey={stored.form} tab={tab} onTab={setTab} refusals={refusals} aside={why} />
      </div>
      <aside className={classes.side}>
        <div className={classes.actions}>
          <Button variant="default" loading={isSaving} onClick={() => void save()} title="Ctrl+S">
            Save
          </Button>
          <div id="moves" className={classes.moves}>
            {moves.map((move) => (
              <Button
                key={move.key}
                loading={isSaving}
                onClick={() => void save(move)}
                title={moves.length === 1 ? 'Ctrl+Enter' : undefined}
              >
                {move.label}
              </Button>
            ))}
          </div>
          <Text size="xs" c="dimmed" data-saying>
            {saying(isNew, changed, refused !== undefined, waiting.length + elsewhere.length > 0)}
          </Text>
        </div>
        {waiting.length > 0 && (
          <Text size="xs" role="status">
            Set aside, and not saved: {waiting.map((field) => fieldLabel({ recordType: type }, field)).join(', ')}. What you typed
            there comes back when the field shows or opens again.
          </Text>
        )}
        {elsewhere.length > 0 && (
          <Text size="xs" role="status">
            Typed on another form, and not saved: {elsewhere.map((field) => fieldLabel({ recordType: type }, field)).join(', ')}.
            Go to {formsOf(type, elsewhere)} to save it.
          </Text>
        )}
        {choosing && <Reconcile ref={chooser} type={type} choosing={choosing} person={person} onGoOn={filling.choose} />}
        {news && !choosing && <NewsLine news={news} type={type} record={record} person={person} />}
        {offered.map((offer) => (
          <Offered
            key={offer.slot}
            type={type}
            stored={stored}
            offer={offer}
            onTakeUp={(one) => void filling.takeUp(one)}
            onThrowAway={filling.throwAway}
          />
        ))}
        {refused && (reasons.length > 0 || !refused.problem.refusals) && (
          <Refused problem={refused.problem} reasons={reasons} type={type} onGoTo={goTo} />
        )}
        <Missing type={type} outlook={outlook?.moves} isLive={isLive} moves={leading} onGoTo={goTo} />
        {!isNew && <History filling={filling} />}
      </aside>
    </main>
  );
}

/** Where the record is locked as a whole: that, once for all its fields. */
function Locked({ record, recordType }: { record: OpenRecord; recordType: string }) {
  const { isLocked } = useElement(record, 'record', 'record');
  return isLocked ? (
    <p className={classes.closed} role="status">
      This record is locked. <Why record={record} kind="record" elementKey="record" recordType={recordType} />
    </p>
  ) : null;
}

/** What the record is called, as it is typed. */
function RecordTitle({ type, record }: { type: RecordType; record: OpenRecord }) {
  const { value } = useField(record, type.titleField);
  return (
    <Title order={2} className={classes.title}>
      {value === null
        ? `New ${type.label.toLowerCase()}`
        : shown(type.fields.find(({ key }) => key === type.titleField)?.type, value)}
    </Title>
  );
}

/** The list as this person left it. */
const listAddress = ({ key }: RecordType) => sessionStorage.getItem(`dibujo list ${key}`) ?? `/types/${key}/records`;

/** Labels of the forms on which the fields stand. */
const formsOf = (type: RecordType, fields: string[]) =>
  [
    ...new Set(
      fields.flatMap((field) => type.forms.find(({ key }) => tabOf({ recordType: type }, 'field', field, key))?.key ?? []),
    ),
  ]
    .map((key) => formLabel({ recordType: type }, key))
    .join(' and ');

/** The field may stand on a form or tab that is drawn in a moment. */
function focusOn(field: string, tries = 40) {
  window.setTimeout(() => {
    const input = document.getElementById(`field-${field}`);
    if (input) {
      input.scrollIntoView({ block: 'center' });
      (input.matches('input, textarea, button') ? input : input.querySelector<HTMLElement>('input, button'))?.focus();
    } else if (tries > 0) {
      focusOn(field, tries - 1);
    }
  }, 50);
}

/** The same address with one thing in it said otherwise; empty: not said. */
function addressOf(search: URLSearchParams, name: string, value: string) {
  const next = new URLSearchParams(search);
  if (value) {
    next.set(name, value);
  } else {
    next.delete(name);
  }
  return next.toString();
}

/** Whether what stands on the page is stored. */
function saying(isNew: boolean, changed: number, isRefused: boolean, isMore: boolean) {
  if (isRefused) {
    return changed === 0 ? 'That was refused; nothing was saved.' : `Nothing was saved: ${changes(changed)} still here.`;
  }
  if (isNew) {
    return changed === 0 ? 'This record is not saved yet.' : `This record is not saved yet: ${changes(changed)} here.`;
  }
  return changed > 0 ? `${changes(changed)} not saved yet.` : isMore ? 'Everything else is saved.' : 'Everything is saved.';
}

const changes = (count: number) => `${count} ${count === 1 ? 'change' : 'changes'}`;
