import { Button, Text } from '@mantine/core';
import { useEffect, useState } from 'react';
import { answered } from '../../api/client';
import { settleCollision, type CollisionView, type Definition, type Rule } from '../../api/generated';
import type { DraftProgram } from '../../engine/draftProgram';
import lines from '../../sheet/lines.module.css';
import { usePeople } from '../../api/people';
import { newKey } from '../rule/compose';
import classes from './Collisions.module.css';
import type { SharedDraft } from './sharedDraft';

interface Props {
  recordType: string;
  collisions: CollisionView[];
  definition: Definition;
  program: DraftProgram;
  shared: SharedDraft;
  revisions: Record<string, { by: string }>;
}

/** Rules that two people changed at the same time: both versions, and the choice between them. Both people see it. */
export function Collisions({ collisions, ...shared }: Props) {
  return collisions.length === 0 ? null : (
    <div className={classes.all} role="region" aria-label="Rules that wait for a choice" tabIndex={0}>
      {collisions.map((collision) => (
        <Collision key={collision.id} collision={collision} {...shared} />
      ))}
    </div>
  );
}

function Collision({
  recordType,
  collision,
  definition,
  program,
  shared,
  revisions,
}: Omit<Props, 'collisions'> & { collision: CollisionView }) {
  const nameOf = usePeople();
  const [edit] = collision.step.edits;
  const later = edit?.rule;
  const stored = definition.rules.find(({ key }) => key === edit?.key);
  const settle = async (keep: 'earlier' | 'later') =>
    shared.settled(
      await answered(
        settleCollision({
          path: { key: recordType, id: collision.id },
          query: { after: shared.present().version },
          body: { keep },
        }),
      ),
    );

  async function keepBoth(later: Rule) {
    const rule: Rule = { ...later, key: newKey(), name: `${later.name} (${nameOf(collision.by)})` };
    const at = definition.rules.findIndex(({ key }) => key === later.key) + 1;
    shared.change({ ...definition, rules: [...definition.rules.slice(0, at), rule, ...definition.rules.slice(at)] });
    await settle('earlier');
  }

  const first = stored ? nameOf(revisions[stored.key]?.by) : '';
  return (
    <section
      className={classes.collision}
      aria-label={`Two versions of ${stored?.name ?? edit?.rule?.name ?? 'the record type'}`}
    >
      <Text size="sm" className={lines.wrong} role="alert">
        {edit
          ? `${nameOf(collision.by)} changed “${edit.rule?.name ?? stored?.name ?? edit.key}” while ${first || 'somebody else'} did. Choose which version stays; both are kept until then.`
          : `${nameOf(collision.by)} changed how things rest while somebody else did. Choose which version stays.`}
      </Text>
      {edit && (
        <dl className={classes.versions}>
          <dt>{first || 'In the draft'}</dt>
          <dd>{stored ? <Words rule={stored} program={program} /> : 'deletes the rule'}</dd>
          <dt>{nameOf(collision.by)}</dt>
          <dd>{edit.rule ? <Words rule={edit.rule} program={program} /> : 'deletes the rule'}</dd>
        </dl>
      )}
      <Button.Group>
        <Button size="compact-sm" variant="default" onClick={() => void settle('earlier')}>
          Keep {first ? `${first}’s` : 'what is in the draft'}
        </Button>
        <Button size="compact-sm" variant="default" onClick={() => void settle('later')}>
          Take {nameOf(collision.by)}’s
        </Button>
        {later && stored && (
          <Button size="compact-sm" variant="default" onClick={() => void keepBoth(later)}>
            Keep both, as two rules
          </Button>
        )}
      </Button.Group>
    </section>
  );
}

function Words({ rule, program }: { rule: Rule; program: DraftProgram }) {
  const [sentence, setSentence] = useState('');
  useEffect(() => {
    let isWanted = true;
    void program.sentenceOf(rule).then(
      (found) => isWanted && setSentence(found),
      () => undefined,
    );
    return () => {
      isWanted = false;
    };
  }, [rule, program]);
  return (
    <>
      <b>{rule.name}</b> {sentence}
      {rule.on === false && ' (off)'}
    </>
  );
}
