import { DndContext, KeyboardSensor, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import { SortableContext, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { Button, Group, Select, Text, Title } from '@mantine/core';
import { useCallback, useMemo, useState } from 'react';
import { useNavigate } from 'react-router-dom';
import type { Form } from '../api/generated';
import type { Drawing } from '../draftingTable/draft/Drawn';
import { useSample } from '../draftingTable/sheet/useSample';
import { useTouching } from '../draftingTable/sheet/useTouching';
import { viewOf } from '../draftingTable/sheet/view';
import { Begin } from '../frame/Begin';
import { Typed } from '../frame/Typed';
import lines from '../sheet/lines.module.css';
import { dropped, idOf, nearest, nextPlace } from './dragging';
import { DrawnContext, type Drawn } from './drawn';
import { withFieldAt, withForm, withMainForm, withNewForm, withNewTab } from './edits';
import classes from './Forms.module.css';
import { Place } from './Place';
import { TabDrawing } from './TabDrawing';

/** The name by which the margin goes while something is dragged. */
const margin = 'in the margin';

/** One form with its tabs, sections and fields to be dragged; what stands nowhere on it waits in the margin. */
export function FormSheet({ draft, published, problems, program }: Drawing) {
  const { definition, changeType } = draft;
  const { recordType: type } = definition;
  const [chosen, setChosen] = useState(type.forms[0]?.key ?? '');
  const form = type.forms.find(({ key }) => key === chosen) ?? type.forms[0];
  const drawn = useDrawn(draft, program, form?.key);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: nextPlace }),
  );
  if (!form) {
    return null;
  }
  const { key: formKey } = form;
  const change = (next: (form: Form) => Form) => changeType(withForm(type, formKey, next));
  const sections = form.tabs.flatMap((tab) => tab.sections);
  const standing = new Set(sections.flatMap(({ fields }) => fields));
  const waiting = type.fields.filter(({ key, retired }) => !retired && !standing.has(key)).map(({ key }) => key);
  const mistakes = problems.type.filter(({ place }) => place.startsWith('/recordType/forms'));

  return (
    <DrawnContext value={drawn}>
      <DndContext sensors={sensors} collisionDetection={nearest} onDragEnd={(event) => change((one) => dropped(one, event))}>
        <main className={classes.page}>
          <section className={classes.sheet} aria-label={`The form ${form.label}`}>
            <Group justify="space-between" className={classes.head}>
              <Group gap={8}>
                <Title order={2} className={classes.heading}>
                  Form
                </Title>
                <Select
                  aria-label="Form that is drawn"
                  w={200}
                  allowDeselect={false}
                  data={type.forms.map(({ key, label }, i) => ({ value: key, label: i === 0 ? `${label} (main)` : label }))}
                  value={form.key}
                  onChange={(key) => key && setChosen(key)}
                />
                <Typed
                  aria-label="Name of the form"
                  w={190}
                  value={form.label}
                  onDone={(label) => label && change((one) => ({ ...one, label }))}
                />
                <Button
                  variant="default"
                  disabled={type.forms[0] === form || published?.forms.some(({ key }) => key === form.key)}
                  onClick={() => changeType({ ...type, forms: type.forms.filter((one) => one !== form) })}
                >
                  Delete the form
                </Button>
                {type.forms[0] !== form && (
                  <Button variant="default" onClick={() => changeType(withMainForm(type, form.key))}>
                    Make it the main form
                  </Button>
                )}
              </Group>
              <Begin
                what="form"
                onBegin={(label) => {
                  const grown = withNewForm(type, label);
                  changeType(grown.type);
                  setChosen(grown.key);
                }}
              >
                Add the form
              </Begin>
            </Group>
            <div className={classes.tabs}>
              {mistakes.map((mistake) => (
                <Text key={mistake.place + mistake.what} className={lines.wrong} role="alert" size="sm">
                  {mistake.what} {mistake.mend}
                </Text>
              ))}
              <SortableContext items={form.tabs.map(({ key }) => idOf.tab(key))} strategy={verticalListSortingStrategy}>
                {form.tabs.map((tab, i) => (
                  <TabDrawing
                    key={tab.key}
                    definition={definition}
                    form={form}
                    tab={tab}
                    at={i}
                    onForm={change}
                    onType={changeType}
                  />
                ))}
              </SortableContext>
              <Begin what="tab" onBegin={(label) => change((one) => withNewTab(one, label))}>
                Add the tab
              </Begin>
            </div>
          </section>
          <section className={classes.margin} aria-label="Fields in the margin">
            <Title order={2} className={classes.heading}>
              In the margin
            </Title>
            <Text size="sm" c="dimmed">
              {waiting.length > 0
                ? 'These stand nowhere on this form. Drag them to their place.'
                : 'Every field stands somewhere on this form.'}
            </Text>
            <Place
              id={margin}
              label="the margin"
              fields={waiting}
              type={type}
              sections={sections}
              onPlace={(field, section) => change((one) => withFieldAt(one, field, section, null))}
            />
          </section>
        </main>
      </DndContext>
    </DrawnContext>
  );
}

const nothingTried = () => undefined;

/** The form on a new record under the rules as they are; undefined until there is one. */
function useDrawn(draft: Drawing['draft'], program: Drawing['program'], form: string | undefined): Drawn | undefined {
  const { recordType: type, rules } = draft.definition;
  const view = useMemo(() => ({ ...viewOf(new URLSearchParams(), type, 0), ...(form ? { form } : {}) }), [type, form]);
  const { record } = useSample(type, view, program, draft.edition !== null, nothingTried);
  const touching = useTouching(rules, program);
  const navigate = useNavigate();
  const onRule = useCallback(() => void navigate(`/types/${type.key}/rules`), [navigate, type.key]);
  return useMemo(() => record && { record, touching, onRule }, [record, touching, onRule]);
}
