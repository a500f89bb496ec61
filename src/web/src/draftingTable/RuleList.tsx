import type { Rule } from '../api/generated';
import type { CompiledDefinition } from '../engine/compiledDefinition';
import type { EngineRecord } from '../engine/engineRecord';
import { useChanges } from '../engine/useEngine';
import { Balloon } from '../sheet/Balloon';
import lines from '../sheet/lines.module.css';
import { duplicate, moved, replaced, without } from './compose';
import { OpenRule } from './OpenRule';
import classes from './RuleList.module.css';
import { SentenceText } from './SentenceText';
import { plainText } from './plainText';

interface Props {
  rules: Rule[];
  compiled: CompiledDefinition;
  record: EngineRecord;
  chosen: string | undefined;
  onChoose: (key: string | undefined) => void;
  onChange: (rules: Rule[]) => void;
}

/** The rules as sentences, highest first; the chosen one opens in place. */
export function RuleList({ rules, compiled, record, chosen, onChoose, onChange }: Props) {
  useChanges(record);
  const { problems: allProblems } = compiled;
  const sentences = compiled.sentences();
  return (
    <ol className={classes.list}>
      {rules.map((rule, i) => {
        const place = `/rules/${i}`;
        const problems = allProblems
          .filter((p) => p.place.startsWith(`${place}/`))
          .map((p) => ({ ...p, place: p.place.slice(place.length) }));
        const inForce = record.caseInForce(i) >= 0;
        const isOpen = rule.key === chosen;
        return (
          <li
            key={rule.key}
            className={classes.rule}
            data-rule={rule.key}
            data-open={isOpen || undefined}
            data-in-force={inForce || undefined}
            data-off={rule.on === false || undefined}
          >
            <div className={classes.margin}>
              <Balloon
                number={i + 1}
                isInForce={inForce}
                label={isOpen ? `Close rule ${i + 1}` : `Open rule ${i + 1}, ${rule.name}`}
                onPress={() => onChoose(isOpen ? undefined : rule.key)}
              />
            </div>
            {isOpen ? (
              <OpenRule
                rule={rule}
                problems={problems}
                compiled={compiled}
                sentence={plainText(sentences[i] ?? [])}
                clauses={record.clauses(i)}
                caseInForce={record.caseInForce(i)}
                onChange={(next) => onChange(replaced(rules, i, next))}
                onMove={(by) => onChange(moved(rules, i, Math.max(0, Math.min(rules.length - 1, i + by))))}
                onDuplicate={() => {
                  const copy = duplicate(rule, rules);
                  onChange([...rules.slice(0, i + 1), copy, ...rules.slice(i + 1)]);
                  onChoose(copy.key);
                }}
                onDelete={() => {
                  onChange(without(rules, i));
                  onChoose(undefined);
                }}
              />
            ) : (
              <button type="button" className={classes.closed} onClick={() => onChoose(rule.key)}>
                <span className={classes.name}>
                  {rule.name}
                  <span className={lines.word}>{rule.on === false ? 'off' : inForce ? 'in force' : ''}</span>
                </span>
                <SentenceText parts={sentences[i] ?? []} />
                {problems.length > 0 && <span className={lines.wrong}>{problems[0]!.what}</span>}
              </button>
            )}
          </li>
        );
      })}
    </ol>
  );
}
