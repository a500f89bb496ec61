import type { RecordType } from '../../api/generated';
import type { Values } from '../../engine/answers';

/** How the sheet is seen. All of it is in the address, so that it can be sent to a colleague. */
export interface View {
  /** Number of the record; 0 for an empty new one. */
  record: number;
  /** Key of the workflow; empty for the record's own. */
  workflow: string;
  /** Key of the stage; empty for the record's own. */
  stage: string;
  /** Key of the move that is attempted; empty for none. */
  move: string;
  roles: string[];
  /** Account name of the person who looks at it; empty for nobody known. */
  person: string;
  /** The day on which it is looked at; empty for today. */
  date: string;
  /** Whether it is seen as a reader sees it. */
  isReading: boolean;
  /** Key of the form that is drawn. */
  form: string;
  tab: string;
  /** Whether it is drawn exactly as a member sees it, without what is hidden. */
  asMember: boolean;
  /** What was tried by hand, by field. */
  tried: Values;
}

/** The role as which a sheet is seen to begin with: an administrator's own tells little. */
const usualRole = (type: RecordType) => type.roles?.find((role) => role.key !== 'administrator')?.key;

/** The view that an address gives; what it does not say is as usual. */
export function viewOf(address: URLSearchParams, type: RecordType, first: number): View {
  const number = Number(address.get('record') ?? first);
  return {
    record: Number.isSafeInteger(number) && number >= 0 ? number : first,
    workflow: address.get('workflow') ?? '',
    stage: address.get('stage') ?? '',
    move: address.get('move') ?? '',
    roles: address.get('roles')?.split(' ').filter(Boolean) ?? [usualRole(type) ?? ''].filter(Boolean),
    person: address.get('person') ?? '',
    date: /^\d{4}-\d{2}-\d{2}$/.exec(address.get('date') ?? '')?.[0] ?? '',
    isReading: address.has('reading'),
    form: type.forms.find(({ key }) => key === address.get('form'))?.key ?? type.forms[0]!.key,
    tab: address.get('tab') ?? '',
    asMember: address.has('member'),
    tried: valuesOf(address.get('tried')),
  };
}

/** The address of a view. */
export function addressOf(view: View, type: RecordType, first: number): URLSearchParams {
  const address = new URLSearchParams();
  const say = (name: string, value: string, usual = '') => value !== usual && address.set(name, value);
  say('record', String(view.record), String(first));
  say('workflow', view.workflow);
  say('stage', view.stage);
  say('move', view.move);
  say('roles', view.roles.join(' '), usualRole(type) ?? '');
  say('person', view.person);
  say('date', view.date);
  say('form', view.form, type.forms[0]!.key);
  say('tab', view.tab);
  if (view.isReading) {
    address.set('reading', '');
  }
  if (view.asMember) {
    address.set('member', '');
  }
  if (Object.keys(view.tried).length > 0) {
    address.set('tried', JSON.stringify(view.tried));
  }
  return address;
}

function valuesOf(text: string | null): Values {
  try {
    const read: unknown = JSON.parse(text ?? '{}');
    return typeof read === 'object' && read !== null && !Array.isArray(read) ? (read as Values) : {};
  } catch {
    return {};
  }
}
