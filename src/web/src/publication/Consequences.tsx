import type { Consequence } from '../api/generated';
import lines from '../sheet/lines.module.css';
import classes from './Consequences.module.css';
import { writtenNumber } from '../writing/numbers';

/** What each change does to the records, counted, with some of those that do not read as before. */
export function Consequences({ consequences }: { consequences: Consequence[] }) {
  return (
    <ul className={classes.list}>
      {consequences.map((one) => (
        <li key={one.what}>
          {one.what} <strong>{counted(one.records)}</strong>
          {one.lost + one.altered + one.rewritten > 0 && one.examples.length > 0 && (
            <>
              {': '}
              {[
                one.records - one.lost - one.altered - one.rewritten > 0 &&
                  `${writtenNumber(one.records - one.lost - one.altered - one.rewritten)} read as before`,
                one.rewritten > 0 && `${writtenNumber(one.rewritten)} read otherwise and lose nothing`,
                one.altered > 0 && `${writtenNumber(one.altered)} lose something`,
              ]
                .filter(Boolean)
                .join(', ')}
              {one.lost > 0 && (
                <span className={lines.wrong}>
                  {one.rewritten + one.altered > 0 || one.records > one.lost ? ', ' : ''}
                  {writtenNumber(one.lost)} lose the value; their history keeps it
                </span>
              )}
              .
              <table className={classes.examples} aria-label={`Some of them: ${one.what}`}>
                <tbody>
                  {one.examples.map((example) => (
                    <tr key={`${example.record} ${example.before}`}>
                      <td>No. {example.record}</td>
                      <td className={classes.title}>{example.title}</td>
                      <td>{example.before}</td>
                      <td>→ {example.after === '' ? <span className={lines.wrong}>blank</span> : example.after}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </>
          )}
        </li>
      ))}
    </ul>
  );
}

const counted = (records: number) => (records === 1 ? '1 record' : `${writtenNumber(records)} records`);
