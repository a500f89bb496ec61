import type { SaidMessage } from '../api/generated';
import { inLocale } from '../writing/dates';
import classes from './Said.module.css';

const words = { note: 'Note', warning: 'Warning', stopsMoving: 'Stops moving on', stopsSaving: 'Stops saving' };

/** Messages of rules, each with its weight in words. */
export function Said({ messages }: { messages: SaidMessage[] }) {
  return messages.map((message) => (
    <p
      key={`${message.rule}${message.text}`}
      className={classes.message}
      data-severity={message.severity}
      role={message.severity === 'stopsSaving' ? 'alert' : 'status'}
    >
      <span className={classes.word}>{message.endsForm ? 'The form ends here' : words[message.severity]}</span>
      {inLocale(message.text)}
    </p>
  ));
}
