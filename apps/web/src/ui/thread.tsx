import type { RequestMessageShape } from '@zesting/contract';
import { instantWords } from '../lib/format';
import { LinkedText } from './linked-text';

/** What was asked back and answered about a request, oldest first. */
export function Thread({ messages }: { messages: readonly RequestMessageShape[] }) {
  if (messages.length === 0) return null;
  return (
    <ol aria-label="Questions and answers" className="grid gap-2 my-3">
      {messages.map(({ id, author, name, text, at }) => (
        <li key={id} className={`border-l-4 pl-3 ${author === 'agency' ? 'border-line-strong' : 'border-lake'}`}>
          <p className="text-muted text-[13px]">
            {name} {author === 'agency' ? 'asked' : 'answered'}, {instantWords(at)}
          </p>
          <p className="whitespace-pre-wrap break-words max-w-[70ch]">
            <LinkedText text={text} />
          </p>
        </li>
      ))}
    </ol>
  );
}
