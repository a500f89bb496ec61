import { ActionIcon, Button, Combobox, Kbd, Textarea, useCombobox, VisuallyHidden } from '@mantine/core';
import { IconVocabulary } from '@tabler/icons-react';
import { useCallback, useEffect, useLayoutEffect, useRef, useState, type RefObject } from 'react';
import type { OtherWord, Rule } from '../../api/generated';
import type { DraftProgram } from '../../engine/draftProgram';
import type { Hearing, Wordage } from '../../engine/answers';
import lines from '../../sheet/lines.module.css';
import { newKey } from '../rule/compose';
import classes from './Line.module.css';
import { WordByWord } from './WordByWord';

interface Props {
  program: DraftProgram;
  input: RefObject<HTMLTextAreaElement | null>;
  /** With what it begins, whenever it is opened for something else. */
  start: () => string;
  /** A rule that could be said; empty for none. */
  example: string;
  /** Told of what has been said so far. */
  onKeep: (text: string) => void;
  /** The rule that is written anew; a new one is made where there is none. */
  editing: Rule | undefined;
  onMake: (rule: Rule) => void;
  /** Told of a word for which a name was put, where a rule had to be said again. */
  onWord: (word: OtherWord) => void;
  /** Takes back, or makes again, what was done last. */
  onUndo: (isAgain: boolean) => void;
  /** Opens the words that people here have for other names. */
  onWords: () => void;
  onLeave: () => void;
}

/** How long a key waits for the next before the engine is asked, in milliseconds. */
const pause = 40;

/** How many of the texts that were not understood are kept, for what was mended in them. */
const mostMisheard = 200;

interface Heard {
  text: string;
  hearing: Hearing;
}

/** One line that takes a rule as people say it, and shows the sentence that it will be before it is made. */
export function Line({ program, input, start, example, onKeep, editing, onMake, onWord, onUndo, onWords, onLeave }: Props) {
  const [text, setText] = useState(start);
  const [heard, setHeard] = useState<Heard>();
  const [isRefused, setRefused] = useState(false);
  const [isFocused, setFocused] = useState(false);
  /** What came of the last Enter, for who does not see the list. */
  const [told, setTold] = useState('');
  const like = useRef<Rule>(undefined);
  /** What was said and not understood since the last rule was made. */
  const misheard = useRef<string[]>([]);
  /** What is on its way to become a rule. */
  const making = useRef<string>(undefined);
  const words = useRef<HTMLDivElement>(null);
  const combobox = useCombobox({ onDropdownClose: () => combobox.resetSelectedOption() });
  const { openDropdown } = combobox;
  // Opened for a rule, it is there to be written in: with the drawing and not after it, so that no key goes astray.
  const isOpened = editing !== undefined;
  useLayoutEffect(() => {
    if (isOpened) {
      input.current?.focus();
    }
  }, [isOpened, input]);

  const listen = useCallback(
    async (said: string): Promise<Heard> => {
      like.current = editing ?? { key: like.current?.key ?? newKey(), name: '', on: true };
      const hearing = await program.hear(said, like.current);
      if (!hearing.rule) {
        misheard.current = [...misheard.current, said].slice(-mostMisheard);
      }
      return { text: said, hearing };
    },
    [program, editing],
  );

  useEffect(() => {
    if (text.trim() === '') {
      return;
    }
    let isWanted = true;
    const timer = window.setTimeout(() => {
      void listen(text).then((next) => isWanted && setHeard(next));
    }, pause);
    return () => {
      isWanted = false;
      window.clearTimeout(timer);
    };
  }, [text, listen]);

  async function make() {
    if (text.trim() === '') {
      return;
    }
    let known = heard;
    if (known?.text !== text) {
      // Pressed twice, it is made once.
      if (making.current === text) {
        return;
      }
      making.current = text;
      known = await listen(text).finally(() => (making.current = undefined));
    }
    const { hearing } = known;
    setHeard({ text, hearing });
    setRefused(!hearing.rule);
    if (hearing.rule) {
      const before = misheard.current;
      misheard.current = [];
      like.current = undefined;
      combobox.closeDropdown();
      // Who types on at once has begun the next one.
      const now = input.current?.value ?? '';
      write(now.startsWith(text) ? now.slice(text.length) : now);
      setTold(`Made: ${hearing.sentence ?? hearing.rule.name}`);
      onMake(hearing.rule);
      if (before.length > 0) {
        void program.mended(before, text).then(
          (word) => word && onWord(word),
          () => undefined,
        );
      }
    }
  }

  function write(next: string) {
    setText(next);
    onKeep(next);
  }

  function say(next: string) {
    setRefused(false);
    setTold('');
    write(next);
    openDropdown();
    input.current?.focus();
  }

  const replace = (start: number, end: number, by: string) => say(text.slice(0, start) + by + text.slice(end));
  const isCurrent = heard?.text === text;
  const offers = isCurrent ? heard.hearing.offers.filter(({ isHint }) => !isHint) : [];
  return (
    <div
      className={classes.line}
      onFocus={() => setFocused(true)}
      onBlur={(event) => {
        if (!event.currentTarget.contains(event.relatedTarget)) {
          setFocused(false);
          combobox.closeDropdown();
        }
      }}
    >
      <VisuallyHidden role="status">{told}</VisuallyHidden>
      <Combobox
        store={combobox}
        onOptionSubmit={(value) => {
          const offer = offers[Number(value)]!;
          say(`${text.slice(0, offer.start)}${offer.text} `);
        }}
      >
        <Combobox.EventsTarget>
          <Textarea
            ref={input}
            aria-label={editing ? 'The rule as text' : 'Say a rule'}
            placeholder={`Say a rule${example && `: ${example}`}   ( Alt L )`}
            autosize
            minRows={1}
            maxRows={8}
            size="sm"
            rightSection={
              <ActionIcon
                variant="subtle"
                aria-label="Other words"
                title="Other words that the line understands"
                onClick={onWords}
              >
                <IconVocabulary size={17} />
              </ActionIcon>
            }
            value={text}
            onFocus={() => {
              if (text !== '') {
                openDropdown();
              }
            }}
            onChange={(event) => say(event.currentTarget.value)}
            onKeyDown={(event) => {
              if (event.key === 'Tab' && !event.shiftKey && offers.length > 0 && combobox.dropdownOpened) {
                event.preventDefault();
                say(`${text.slice(0, offers[0]!.start)}${offers[0]!.text} `);
              } else if (event.key === 'Enter' && combobox.getSelectedOptionIndex() < 0) {
                event.preventDefault();
                void make();
              } else if (text === '' && (event.ctrlKey || event.metaKey) && event.code === 'KeyZ') {
                event.preventDefault();
                onUndo(event.shiftKey);
              } else if (event.altKey && event.code === 'KeyW' && words.current) {
                event.preventDefault();
                words.current.querySelector('button')?.focus();
              } else if (event.altKey && /^Digit[1-9]$/.test(event.code)) {
                // A sentence that is offered, by its number.
                const question = isCurrent ? heard.hearing.question : null;
                const option =
                  question && isWhole(question, text) ? question.options[Number(event.code.slice(5)) - 1] : undefined;
                if (option) {
                  event.preventDefault();
                  say(option.text);
                }
              } else if (event.key === 'Escape') {
                event.preventDefault();
                if (combobox.getSelectedOptionIndex() >= 0) {
                  combobox.resetSelectedOption();
                } else {
                  onLeave();
                }
              }
            }}
          />
        </Combobox.EventsTarget>
        {isFocused && text.trim() !== '' && heard && (
          <div className={classes.heard} data-stale={!isCurrent || undefined} onMouseDown={(event) => event.preventDefault()}>
            <Understood
              heard={heard}
              isRefused={isRefused}
              isEditing={editing !== undefined}
              onMake={() => void make()}
              onReplace={replace}
            />
            <WordByWord text={heard.text} hearing={heard.hearing} bar={words} onLeave={() => input.current?.focus()} />
            {combobox.dropdownOpened && offers.length > 0 && (
              <Combobox.Options className={classes.offers} aria-label="What can come next">
                {offers.slice(0, mostOffers).map((offer, i) => (
                  <Combobox.Option key={offer.text} value={String(i)}>
                    {offer.text}
                  </Combobox.Option>
                ))}
                {offers.length > mostOffers && <div className={classes.more}>{offers.length - mostOffers} more: type on</div>}
              </Combobox.Options>
            )}
          </div>
        )}
      </Combobox>
    </div>
  );
}

const mostOffers = 40;

interface UnderstoodProps {
  heard: Heard;
  isRefused: boolean;
  isEditing: boolean;
  onMake: () => void;
  onReplace: (start: number, end: number, by: string) => void;
}

/** What the words were taken for: the sentence, what was guessed, what is asked, or why nothing can be made of them. */
function Understood({ heard: { text, hearing }, isRefused, isEditing, onMake, onReplace }: UnderstoodProps) {
  const { sentence, guesses, question, misunderstanding } = hearing;
  return (
    <div role="status" className={classes.understood}>
      {sentence && (
        <div className={classes.sentence}>
          <span data-sentence>{sentence}</span>
          <Button size="compact-xs" onClick={onMake}>
            {isEditing ? 'Take over' : 'Make the rule'} ⏎
          </Button>
        </div>
      )}
      {question && (
        <div className={classes.question} data-question>
          {isWhole(question, text) ? (
            <>
              {question.said === text
                ? question.options.length > 1
                  ? 'Which of these is meant?'
                  : 'Is this meant?'
                : `“${question.said}” is not understood. Without it:`}
              <Readings question={question} onPick={(by) => onReplace(question.start, question.end, by)} />
            </>
          ) : (
            <>
              What is “{question.said}”?
              <Choices choices={question.options} onPick={(by) => onReplace(question.start, question.end, by)} />
            </>
          )}
        </div>
      )}
      {guesses.map((guess) => (
        <div key={`${guess.start}-${guess.end}-${guess.meant}`} className={classes.guess} data-guess>
          {isWhole(guess, text) ? 'This' : `“${text.slice(guess.start, guess.end)}”`} is taken for <b>{guess.meant}</b>
          {guess.others.length > 0 && (
            <>
              , not
              <Choices choices={guess.others} onPick={(by) => onReplace(guess.start, guess.end, by)} />
            </>
          )}
        </div>
      ))}
      {misunderstanding && (
        <div className={isRefused ? lines.wrong : classes.hint} data-misunderstanding>
          {misunderstanding.message}
          {misunderstanding.nearest.length > 0 && (
            <>
              {' '}
              Perhaps
              <Choices
                choices={misunderstanding.nearest}
                onPick={(by) =>
                  onReplace(
                    misunderstanding.place,
                    misunderstanding.place + /^\S*/.exec(text.slice(misunderstanding.place))![0].length,
                    by,
                  )
                }
              />
            </>
          )}
        </div>
      )}
    </div>
  );
}

/** Whether it is about all that was said. */
const isWhole = ({ start, end }: { start: number; end: number }, text: string) => start === 0 && end >= text.length;

/** Whole sentences that may be meant, each with the key that takes it. */
const Readings = ({ question, onPick }: { question: NonNullable<Hearing['question']>; onPick: (text: string) => void }) => (
  <ol className={classes.readings} aria-label="What may be meant">
    {question.options.map((option, i) => (
      <li key={option.text}>
        <Button
          size="compact-xs"
          variant="default"
          classNames={{ root: classes.reading, label: classes.readingLabel }}
          onClick={() => onPick(option.text)}
        >
          {option.label}
        </Button>
        <Kbd className={classes.key}>Alt {i + 1}</Kbd>
      </li>
    ))}
  </ol>
);

const Choices = ({ choices, onPick }: { choices: Wordage[]; onPick: (text: string) => void }) =>
  choices.map((choice) => (
    <Button key={choice.text} size="compact-xs" variant="default" ml={6} onClick={() => onPick(choice.text)}>
      {choice.label}
    </Button>
  ));
