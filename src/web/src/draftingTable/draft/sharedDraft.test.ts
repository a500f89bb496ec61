import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { CollisionView, Definition, DraftStepView, DraftView, Rule, RuleEdit, SignInView } from '../../api/generated';
import { signedInHere, type Problem } from '../../api/client';
import { MemoryStorage } from '../../pending/memoryStorage';
import { random } from '../../pending/random';
import { Shelf } from '../../pending/shelf';
import type { DraftEdit } from './draftEdits';
import { SharedDraft, type DraftServer } from './sharedDraft';
import { after, isSame } from './steps';
import type { StepStore } from './undo';

/** How many drafts are written; more of them by the environment. */
const rounds = Number((globalThis as { process?: { env: Record<string, string | undefined> } }).process?.env.DIBUJO_ROUNDS ?? 25);

/** Has whoever waits for it know that somebody is signed in again. */
const signedIn = () => void signedInHere({} as SignInView);

const rule = (key: string, name = key): Rule => ({ key, name, on: true, cases: [] });
const type = { key: 'loan' } as Definition['recordType'];
const draftOf = (...keys: string[]): Definition => ({ recordType: type, rules: keys.map((key) => rule(key)) });

const writtenOut = (edit: RuleEdit): RuleEdit =>
  edit.rule ? { ...edit, rule: { ...edit.rule, reason: edit.rule.reason ?? null, saved: false } as Rule } : edit;

/** A server that follows the same rules as the real one: see Drafting in Dibujo.Core. */
class FakeServer {
  version = 1;
  steps: DraftStepView[] = [];
  collisions: CollisionView[] = [];
  revisions: DraftView['revisions'] = {};
  edition: number | null = null;
  /** Whether the next request does not arrive, or its answer does not. */
  fails = (): 'before' | 'after' | false => false;

  /** Why the next request is refused. */
  refusal: (by: string) => Problem | undefined = () => undefined;

  constructor(public draft: Definition) {}

  of(by: string): DraftServer {
    const lossy = <T>(answer: () => T): Promise<T> => {
      const failure = this.fails();
      const refusal = this.refusal(by);
      if (refusal) {
        return Promise.reject(refusal as unknown as Error);
      }
      if (failure === 'before') {
        return Promise.reject(new Error('lost'));
      }
      const result = answer();
      return failure === 'after' ? Promise.reject(new Error('lost')) : Promise.resolve(structuredClone(result));
    };
    return {
      make: (step, known) =>
        lossy(() => {
          const made = step.edits.filter((edit) => {
            const present = this.draft.rules.find(({ key }) => key === edit.key);
            const isDone = edit.isRemoved ? !present : !edit.rule || isSame(edit.rule, present);
            const collides = !isDone && (this.revisions[edit.key]?.version ?? 0) > edit.base;
            if (collides) {
              this.collisions.push({ id: this.collisions.length + 1, step: { edits: [edit] }, by, at: '' });
            }
            return !collides;
          });
          // As the real one does, it writes out more than it was told.
          const next = after(this.draft, { edits: structuredClone(made).map(writtenOut) });
          if (!isSame(next, this.draft)) {
            this.draft = next;
            this.version++;
            this.steps.push({ version: this.version, step: { edits: made.map(writtenOut) }, by, at: '' });
            made.forEach(({ key }) => (this.revisions[key] = { version: this.version, by, at: '' }));
          }
          return this.news(known);
        }),
      news: (since) => lossy(() => this.news(since)),
      read: () => lossy(() => this.view()),
    };
  }

  private news(since: number) {
    return {
      version: this.version,
      edition: this.edition,
      steps: this.steps.filter(({ version }) => version > since),
      collisions: this.collisions,
    };
  }

  view(): DraftView {
    return structuredClone({
      version: this.version,
      definition: this.draft,
      problems: [],
      ruleProblems: [],
      edition: this.edition,
      revisions: this.revisions,
      typeRevision: 0,
      collisions: this.collisions,
    });
  }
}

/** A person's browser, with what it keeps beyond the window. */
class Browser {
  readonly steps: StepStore = { own: null };

  constructor(
    readonly person: string,
    readonly storage = new MemoryStorage(),
  ) {}

  /** Opens the draft in a window. */
  open = (server: FakeServer) =>
    new SharedDraft(
      server.view(),
      server.of(this.person),
      new Shelf<DraftEdit>(this.person, 'draft loan', this.storage),
      this.steps,
    );

  get isEmpty() {
    return this.storage.length === 0;
  }
}

const two = (server: FakeServer) => ['ada', 'ina'].map((by) => new Browser(by).open(server)) as [SharedDraft, SharedDraft];
const names = (draft: SharedDraft) => draft.present().definition.rules.map(({ name }) => name);

function renamed(draft: SharedDraft, key: string, name: string) {
  const { definition } = draft.present();
  draft.change({ ...definition, rules: definition.rules.map((one) => (one.key === key ? { ...one, name } : one)) });
}

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

describe('a draft that two write at once', () => {
  it('has both changes of different rules', async () => {
    const server = new FakeServer(draftOf('a', 'b'));
    const [ada, ina] = two(server);

    renamed(ada, 'a', 'A');
    renamed(ina, 'b', 'B');
    await vi.advanceTimersByTimeAsync(1000);
    await ada.pull();

    expect(names(ada)).toEqual(['A', 'B']);
    expect(names(ina)).toEqual(['A', 'B']);
    expect(server.collisions).toEqual([]);
  });

  it('does not write over what came in while an edit of one’s own was not sent yet', async () => {
    const server = new FakeServer(draftOf('a'));
    const [ada, ina] = two(server);

    renamed(ina, 'a', 'Ina’s');
    await vi.advanceTimersByTimeAsync(1000);
    renamed(ada, 'a', 'Ada’s');
    await ada.pull();
    await vi.advanceTimersByTimeAsync(1000);

    expect(names(ada)).toEqual(['Ina’s']);
    expect(server.collisions.map(({ step }) => step.edits[0]!.rule!.name)).toEqual(['Ada’s']);
  });

  it('shows both versions of one rule to both, and loses neither', async () => {
    const server = new FakeServer(draftOf('a'));
    const [ada, ina] = two(server);

    renamed(ada, 'a', 'Ada’s');
    await vi.advanceTimersByTimeAsync(400);
    renamed(ina, 'a', 'Ina’s');
    await vi.advanceTimersByTimeAsync(1000);
    await ada.pull();

    expect(names(ina)).toEqual(['Ada’s']);
    [ada, ina].forEach((draft) => expect(draft.present().collisions[0]!.step.edits[0]!.rule!.name).toBe('Ina’s'));
  });

  it('keeps what could not be sent beyond the window', async () => {
    const server = new FakeServer(draftOf('a'));
    const browser = new Browser('ada');
    server.fails = () => 'before';
    const first = browser.open(server);
    renamed(first, 'a', 'A');
    await vi.advanceTimersByTimeAsync(1000);
    expect(first.present().isSaved).toBe(false);
    first.close();

    server.fails = () => false;
    const second = browser.open(server);
    await vi.advanceTimersByTimeAsync(1000);

    expect(server.draft.rules[0]!.name).toBe('A');
    expect(second.present().isSaved).toBe(true);
    expect(browser.isEmpty).toBe(true);
  });

  it('does not write over what somebody else did while the window was closed', async () => {
    const server = new FakeServer(draftOf('a', 'b'));
    const browser = new Browser('ada');
    server.fails = () => 'before';
    const first = browser.open(server);
    renamed(first, 'a', 'Ada’s');
    renamed(first, 'b', 'B');
    await vi.advanceTimersByTimeAsync(500);
    await first.close();
    server.fails = () => false;
    const ina = new Browser('ina').open(server);
    renamed(ina, 'a', 'Ina’s');
    await vi.advanceTimersByTimeAsync(1000);

    const second = browser.open(server);
    await vi.advanceTimersByTimeAsync(1000);

    expect(names(second)).toEqual(['Ina’s', 'B']);
    expect(server.collisions.map(({ step, by }) => [by, step.edits[0]!.rule!.name])).toEqual([['ada', 'Ada’s']]);
  });

  it('is not sent by whoever signs in next at the same browser', async () => {
    const server = new FakeServer(draftOf('a'));
    const browser = new Browser('ada');
    server.fails = () => 'before';
    const first = browser.open(server);
    renamed(first, 'a', 'Ada’s');
    await vi.advanceTimersByTimeAsync(500);
    await first.close();
    server.fails = () => false;

    const ina = new Browser('ina', browser.storage).open(server);
    await vi.advanceTimersByTimeAsync(1000);
    expect(names(ina)).toEqual(['a']);
    expect(server.steps).toEqual([]);

    browser.open(server);
    await vi.advanceTimersByTimeAsync(1000);
    expect(server.steps.map(({ by }) => by)).toEqual(['ada']);
  });

  it('waits with what is refused until somebody changes it', async () => {
    const server = new FakeServer(draftOf('a'));
    const ada = new Browser('ada').open(server);
    let asked = 0;
    server.refusal = () => (asked++ < 1 ? { status: 400, title: 'It makes no sense.' } : undefined);
    renamed(ada, 'a', 'A');
    await vi.advanceTimersByTimeAsync(60_000);
    expect(asked).toBe(1);
    expect(ada.present()).toMatchObject({ isSaved: false, problem: { title: 'It makes no sense.' } });

    renamed(ada, 'a', 'AA');
    await vi.advanceTimersByTimeAsync(1000);
    expect(ada.present()).toMatchObject({ isSaved: true, problem: undefined });
  });

  it('undoes one’s own steps, also after a reload, and leaves what somebody else has changed since', async () => {
    const server = new FakeServer(draftOf('a', 'b'));
    const browser = new Browser('ada');
    const first = browser.open(server);
    renamed(first, 'a', 'A');
    renamed(first, 'b', 'B');
    await vi.advanceTimersByTimeAsync(1000);
    first.close();

    const ada = browser.open(server);
    const ina = new Browser('ina').open(server);
    renamed(ina, 'a', 'Ina’s');
    await vi.advanceTimersByTimeAsync(1000);
    await ada.pull();
    ada.undo();
    expect(names(ada)).toEqual(['Ina’s', 'b']);
    ada.undo();
    expect(names(ada)).toEqual(['Ina’s', 'b']);
    expect(ada.present().kept).toBe(1);
    ada.redo();
    ada.redo();
    expect(names(ada)).toEqual(['Ina’s', 'B']);
  });

  it('takes typing in one text as one step', () => {
    const server = new FakeServer(draftOf('a'));
    const ada = new Browser('ada').open(server);
    ['F', 'Fe', 'Fee'].forEach((name) => renamed(ada, 'a', name));
    ada.undo();
    expect(names(ada)).toEqual(['a']);
    expect(ada.present().canUndo).toBe(false);
  });

  it('ends the same for both, with every edit in it or waiting and in its author’s name, whatever comes between', async () => {
    for (let seed = 1; seed <= rounds; seed++) {
      const gone = new Set<SharedDraft>();
      const chance = random(seed);
      const server = new FakeServer(draftOf('a', 'b', 'c', 'd', 'e', 'f'));
      // Both write at one browser and at another, so that what one of them keeps there is seen by the other.
      const shared = new MemoryStorage();
      const people = ['ada', 'ina'];
      const browsers = people.map((by) => new Browser(by, shared));
      const drafts = browsers.map((browser) => browser.open(server));
      const written: string[][] = [[], []];
      const signedOut = new Set<string>();
      server.fails = () => (chance() < 0.2 ? (chance() < 0.5 ? 'before' : 'after') : false);
      server.refusal = (by) => (signedOut.has(by) ? { status: 401, title: 'Nobody is signed in.' } : undefined);
      for (let edit = 0; edit < 50; edit++) {
        for (const [who, draft] of drafts.entries()) {
          randomEdit(draft, `${people[who]}-${edit}`, chance, written[who]!);
          await vi.advanceTimersByTimeAsync(Math.floor(chance() * 500));
          const comes = chance();
          if (comes < 0.3) {
            await draft.pull();
          } else if (comes < 0.35) {
            // The window is loaded anew: what was on its way arrives, or does not.
            await vi.advanceTimersByTimeAsync(200);
            gone.add(draft);
            drafts[who] = browsers[who]!.open(server);
          } else if (comes < 0.4) {
            signedOut.add(people[who]!);
          } else if (comes < 0.5 && signedOut.delete(people[who]!)) {
            signedIn();
          } else if (comes < 0.55) {
            server.edition = (server.edition ?? 0) + 1;
            await draft.published(server.edition);
          }
        }
      }
      server.fails = () => false;
      signedOut.clear();
      signedIn();
      await Promise.all([...gone].map((draft) => draft.close()));
      await vi.advanceTimersByTimeAsync(20_000);
      for (const draft of drafts) {
        await draft.pull();
        expect(draft.present()).toMatchObject({ isSaved: true, edition: server.edition });
        expect(isSame(draft.present().definition, server.draft)).toBe(true);
        expect(draft.present().collisions).toEqual(server.collisions);
      }
      // Every version that somebody wrote was in the draft once, was overwritten by its own author, or waits.
      const stored = new Set(server.steps.flatMap(({ step }) => step.edits.map((one) => one.rule?.name)));
      const waits = new Set(server.collisions.flatMap(({ step }) => step.edits.map((one) => one.rule?.name)));
      written.forEach((all) =>
        lastOfEach(all).forEach((name) => expect(stored.has(name) || waits.has(name), `${seed}: ${name}`).toBe(true)),
      );
      // Nothing came in another's name: whoever wrote a name first sent it.
      const firsts = new Map(
        server.steps.toReversed().flatMap(({ step, by }) => step.edits.map((one) => [one.rule?.name ?? '', by] as const)),
      );
      firsts.forEach((by, name) => expect(/ (ada|ina)-/.exec(name)?.[1] ?? by, `${seed}: ${name}`).toBe(by));
    }
  }, 60_000);
});

/** Renames, moves, adds or takes away a rule. */
function randomEdit(draft: SharedDraft, mark: string, chance: () => number, written: string[]) {
  const { definition } = draft.present();
  const at = Math.floor(chance() * definition.rules.length);
  const rules = [...definition.rules];
  const kind = chance();
  if (kind < 0.6 && rules[at]) {
    rules[at] = { ...rules[at], name: `${rules[at].key} ${mark}` };
    written.push(rules[at].name);
  } else if (kind < 0.75 && rules.length > 1) {
    const [moved] = rules.splice(at, 1);
    rules.splice(Math.floor(chance() * rules.length), 0, moved!);
  } else if (kind < 0.9) {
    rules.splice(at, 0, rule(`n${mark}`, `n${mark} ${mark}`));
    written.push(`n${mark} ${mark}`);
  } else if (rules.length > 3) {
    const [gone] = rules.splice(at, 1);
    written.splice(0, written.length, ...written.filter((name) => !name.startsWith(`${gone!.key} `)));
  }
  draft.change({ ...definition, rules });
}

/** The last name that was written for each rule. */
function lastOfEach(written: string[]): string[] {
  return [...new Map(written.map((name) => [name.split(' ')[0], name])).values()];
}
