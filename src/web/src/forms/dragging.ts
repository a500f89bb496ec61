import { closestCenter, type CollisionDetection, type DragEndEvent, type KeyboardCoordinateGetter } from '@dnd-kit/core';
import { sortableKeyboardCoordinates } from '@dnd-kit/sortable';
import type { Form } from '../api/generated';
import { withFieldAt, withSectionAt, withTabAt } from './edits';

/** What is dragged on a form. Fields go by their keys, what holds them by these. */
export const idOf = {
  section: (key: string) => `move section ${key}`,
  tab: (key: string) => `move tab ${key}`,
  fieldsOf: (section: string) => `section ${section}`,
};

const kindOf = (id: string): 'section' | 'tab' | 'field' =>
  id.startsWith('move section ') ? 'section' : id.startsWith('move tab ') ? 'tab' : 'field';

type Container = Parameters<CollisionDetection>[0]['droppableContainers'][number];

/** Where what is dragged can be put: a field among fields, a section among sections or on an empty tab, a tab among tabs. */
const takes =
  (dragged: string) =>
  ({ id, node }: Container): boolean => {
    const [kind, there] = [kindOf(dragged), kindOf(String(id))];
    return kind === there || (kind === 'section' && there === 'tab' && node.current?.querySelector('[data-section]') === null);
  };

/** The nearest place that takes what is dragged. */
export const nearest: CollisionDetection = (args) =>
  closestCenter({ ...args, droppableContainers: args.droppableContainers.filter(takes(String(args.active.id))) });

/** By an arrow to the next place that takes what is dragged. */
export const nextPlace: KeyboardCoordinateGetter = (event, args) => {
  const { droppableContainers: all } = args.context;
  const some = { get: all.get.bind(all), getEnabled: () => all.getEnabled().filter(takes(String(args.active))) } as typeof all;
  return sortableKeyboardCoordinates(event, { ...args, context: { ...args.context, droppableContainers: some } });
};

/** The form after something was put down; the same where nothing moved. */
export function dropped(form: Form, { active, over }: DragEndEvent): Form {
  if (!over || over.id === active.id) {
    return form;
  }
  const [id, onto] = [String(active.id), String(over.id)];
  switch (kindOf(id)) {
    case 'tab':
      return withTabAt(form, id.slice('move tab '.length), onto.slice('move tab '.length));
    case 'section':
      return withSectionAt(form, id.slice('move section '.length), onto);
    default: {
      const sections = form.tabs.flatMap((tab) => tab.sections);
      const section = sections.find(({ key, fields }) => idOf.fieldsOf(key) === onto || fields.includes(onto));
      // Further down in its own section it goes below what it is dropped on, as it looks while it is dragged.
      const from = section?.fields.indexOf(id) ?? -1;
      const at = section?.fields.indexOf(onto) ?? -1;
      const before = at < 0 ? null : from >= 0 && from < at ? (section?.fields[at + 1] ?? null) : onto;
      return withFieldAt(form, id, section?.key ?? null, before);
    }
  }
}
