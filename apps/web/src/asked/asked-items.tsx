import { isField, readForm, type Answer, type Answers, type FormItem } from '@zesting/core';
import { AskedField, type Around } from './asked-field';

interface AskedItemsProps extends Around {
  readonly items: readonly FormItem[];
  readonly answers: Answers;
  /** what is wrong, in words, by field key */
  readonly problems: Readonly<Record<string, string>>;
  readonly onAnswer: (key: string, answer: Answer) => void;
  /** the item that is being worked on, to be marked */
  readonly marked?: string | undefined;
}

/** The items of a form as they stand with the answers: what is hidden is not there. */
export function AskedItems({ items, answers, problems, onAnswer, marked, ...around }: AskedItemsProps) {
  const read = readForm(items, answers);
  return read.items.map((item) => (
    <div
      key={item.key}
      data-item={item.key}
      className={item.key === marked ? 'outline-2 outline-offset-4 outline-dashed outline-pine rounded-sm' : ''}
    >
      {isField(item) ? (
        <AskedField
          {...around}
          field={{ ...item, options: read.options.get(item.key) ?? [] }}
          needed={read.needed.has(item.key)}
          answer={answers[item.key]}
          error={problems[item.key]}
          onAnswer={(answer) => onAnswer(item.key, answer)}
        />
      ) : item.kind === 'section' ? (
        <div className="mt-6 mb-3 first:mt-0">
          <h2 className="text-lg">{item.label}</h2>
          {item.help && <p className="text-muted">{item.help}</p>}
        </div>
      ) : (
        <p className="mb-3.5 whitespace-pre-wrap break-words">{item.label}</p>
      )}
    </div>
  ));
}
