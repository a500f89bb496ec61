import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useNavigate } from 'react-router-dom';
import { answered, type Problem } from '../api/client';
import { beginRecord, createRecord, readRecord, saveRecord, type RecordType, type RecordView } from '../api/generated';
import { useSignedIn } from '../api/signedIn';
import type { Value, Values } from '../engine/answers';
import type { OpenRecord } from '../engine/openRecord';
import { collisionsOf, readMeanwhile, same, type Collision, type Meanwhile } from './meanwhile';
import { recordTypeQuery } from './queries';
import { noteOpened } from './recent';
import { shelfOf, type Kept } from './shelf';
import { seen, type Seen } from './states';
import { useLiveRecord } from './useLiveRecord';
import { useOpenRecord } from './useOpenRecord';

/** A record as it is stored, the rules under which it is shown, and what was typed into it. */
export interface Opened {
  type: RecordType;
  stored: RecordView;
  typed: Values;
}

/** What became different without this person's doing, to be told in a line or two. */
export interface News {
  /** Number of the edition that came into force; undefined where none did. */
  edition?: number;
  /** What was seen of the record before. */
  before: Seen;
  meanwhile?: Meanwhile;
}

/** Both this person and others have changed something: what to go on with has to be chosen. */
export interface Choosing {
  meanwhile: Meanwhile;
  collisions: Collision[];
  onto: Omit<Opened, 'typed'>;
}

/**
 * The record that was begun here a moment ago, with what was typed into it and not saved with the rest. Known to no reload: the
 * shelf is for that.
 */
let begun: { id: number; typed: Values } | undefined;

/** How long nothing is typed before it is put on the shelf, in milliseconds. */
const pause = 200;

/**
 * A record being filled in. What is typed outlasts everything but its being saved: other forms of the record, other editions,
 * saves of other people, and, on the shelf, the window itself.
 */
export function useFilling(first: Omit<Opened, 'typed'>) {
  const queries = useQueryClient();
  const navigate = useNavigate();
  const person = useSignedIn().data?.person?.userName ?? '';
  const [handed] = useState(() => (begun?.id === first.stored.id ? begun?.typed : undefined));
  const [opened, setOpened] = useState<Opened>({ ...first, typed: handed ?? {} });
  const { type, stored } = opened;
  const id = stored.id ?? 0;
  const record = useOpenRecord(type, stored, opened.typed);
  const shelf = useMemo(() => shelfOf(person, id || `new ${stored.recordType}`), [person, id, stored.recordType]);
  const [offered, setOffered] = useState<Kept | null>(() => (handed ? null : shelf.read()));
  const [choosing, setChoosing] = useState<Choosing>();
  const [news, setNews] = useState<News>();
  const [refused, setRefused] = useState<{ problem: Problem; at: Values }>();
  const [isSaving, setSaving] = useState(false);
  // What is told while the server answers is this person's own save.
  const isBusy = useRef(false);
  // What was typed into it is saved: it goes on no shelf any more.
  const settled = useRef<OpenRecord>(undefined);
  const here = useLiveRecord(stored.recordType, id || undefined, {
    onSaved: () => isBusy.current || void look().catch(() => undefined),
    onPublished: () => isBusy.current || void look().catch(() => undefined),
  });

  const title = String((stored.values as Values)[type.titleField] ?? '');
  useEffect(() => {
    begun = undefined;
  }, []);

  useEffect(() => {
    if (id !== 0) {
      noteOpened({ id, recordType: stored.recordType, title });
    }
  }, [id, stored.recordType, title]);

  useEffect(() => {
    let timer = 0;
    const keep = () => {
      window.clearTimeout(timer);
      timer = 0;
      if (settled.current === record) {
        return;
      }
      shelf.lay(record.unsaved(), stored.version, offered);
    };
    const stop = record.subscribe('any', () => {
      window.clearTimeout(timer);
      timer = window.setTimeout(keep, pause);
    });
    const flush = () => timer !== 0 && keep();
    window.addEventListener('pagehide', flush);
    return () => {
      stop();
      flush();
      window.removeEventListener('pagehide', flush);
    };
  }, [record, shelf, offered, stored.version]);

  /** The record as the server has it, on that form or, where that does not apply any more, on the first that does. */
  async function fetch(form: string | undefined, workflow: string): Promise<Omit<Opened, 'typed'>> {
    const there = (on: string | undefined) =>
      id === 0
        ? answered(beginRecord({ path: { key: stored.recordType }, query: { form: on, workflow } }))
        : answered(readRecord({ path: { id }, query: { form: on } }));
    const view = await there(form).catch((problem: Problem) =>
      problem.status === 404 && form ? there(undefined) : Promise.reject(problem),
    );
    const known =
      view.edition === stored.edition
        ? type
        : (await queries.fetchQuery(recordTypeQuery(view.recordType, view.edition))).recordType;
    return { type: known, stored: view };
  }

  /** Looks at the record again. What others did is taken over where it collides with nothing, and told. */
  async function look(form: string | undefined = stored.form, workflow = stored.setting.workflow) {
    const onto = await fetch(form, workflow);
    const isSaved = onto.stored.version !== stored.version;
    const isOther = onto.stored.edition !== stored.edition;
    if (!isSaved && !isOther && onto.stored.form === stored.form && onto.stored.setting.workflow === stored.setting.workflow) {
      return;
    }
    const meanwhile = isSaved ? await readMeanwhile(id, stored.version) : undefined;
    const collisions = meanwhile ? collisionsOf(meanwhile, record.unsaved()) : [];
    if (meanwhile && collisions.length > 0) {
      setChoosing({ meanwhile, collisions, onto });
      return;
    }
    if (isSaved || isOther) {
      setNews({ edition: isOther ? onto.stored.edition : undefined, before: seen(type, record), meanwhile });
    }
    goOn(onto, record.unsaved());
  }

  /** Takes what was typed here from the shelf; what is offered from another time stays on it until that is decided. */
  function unshelve() {
    settled.current = record;
    shelf.lay({}, stored.version, offered);
  }

  function goOn(onto: Omit<Opened, 'typed'>, typed: Values) {
    setChoosing(undefined);
    setRefused(undefined);
    setOpened({ ...onto, typed });
  }

  /** Saves what was changed here, with a move if one is given. A refusal is kept, and nothing typed goes. */
  async function save(move?: string): Promise<boolean> {
    setSaving(true);
    setRefused(undefined);
    isBusy.current = true;
    try {
      const before = record.unsaved();
      const { changes } = await record.changes();
      const body = { changes, move, form: stored.form };
      const saved =
        id === 0
          ? await answered(
              createRecord({ path: { key: stored.recordType }, body: { ...body, workflow: stored.setting.workflow } }),
            )
          : await answered(saveRecord({ path: { id }, body: { ...body, version: stored.version } }));
      await queries.invalidateQueries({ queryKey: ['records'] });
      // What is set aside, belongs to another form or was typed while the server answered is not saved: it stays typed.
      const isLeft = ([field, value]: [string, Value]) => !(field in changes) || !same(before[field], value);
      const typed = Object.fromEntries(Object.entries(record.unsaved()).filter(isLeft));
      unshelve();
      if (id === 0) {
        const search = saved.form === type.forms[0]?.key ? '' : `?form=${saved.form}`;
        begun = { id: saved.id, typed };
        shelfOf(person, saved.id).lay(typed, saved.version, null);
        await navigate({ pathname: `/records/${saved.id}`, search }, { replace: true, state: { isSaved: true } });
        return true;
      }
      setNews(undefined);
      const then =
        saved.edition === stored.edition
          ? type
          : (await queries.fetchQuery(recordTypeQuery(saved.recordType, saved.edition))).recordType;
      goOn({ type: then, stored: saved }, typed);
      return true;
    } catch (refusal) {
      const problem = refusal as Problem;
      if (problem.version === undefined) {
        const at = Object.fromEntries((problem.refusals ?? []).map(({ field }) => [field ?? '', record.value(field ?? '')]));
        setRefused({ problem, at });
      } else {
        const [onto, meanwhile] = await Promise.all([
          fetch(stored.form, stored.setting.workflow),
          readMeanwhile(id, stored.version),
        ]);
        setChoosing({ meanwhile, collisions: collisionsOf(meanwhile, record.unsaved()), onto });
      }
      return false;
    } finally {
      isBusy.current = false;
      setSaving(false);
    }
  }

  return {
    ...opened,
    record,
    refused,
    isSaving,
    save,
    look,
    news,
    here: here.filter((one) => one !== person),
    /** What to go on with has to be chosen; the chosen values stand in place of what was typed. */
    choosing,
    choose: (chosen: Values) => choosing && goOn(choosing.onto, { ...record.unsaved(), ...chosen }),
    /** What was typed at another time and never saved. */
    offered,
    takeUp: (values: Values) => {
      setOffered(null);
      Object.entries(values).forEach(([field, value]) => record.change(field, value));
    },
    throwAway: () => {
      shelf.clear();
      setOffered(null);
    },
    /** Forgets what is typed, so that nothing is offered again. */
    forget: () => {
      record.untry();
      unshelve();
    },
  };
}

export type Filling = ReturnType<typeof useFilling>;
