import type { WrittenTextShape } from '@zesting/contract';
import { X } from 'lucide-react';
import { useState } from 'react';
import { Button, IconButton } from '../../../ui/button';

interface WordingsProps {
  /** of the text */
  readonly name: string;
  readonly text: string;
  readonly others: WrittenTextShape['others'];
  readonly readOnly: boolean;
  readonly onChange: (part: { readonly others: string[]; readonly text?: string }) => void;
}

/** Other wordings of a text to choose between: one that is taken changes places with what stands there. The client sees them beside it, and may say which it would rather have. */
export function Wordings({ name, text, others, readOnly, onChange }: WordingsProps) {
  const [typed, setTyped] = useState('');
  const [isAdding, setAdding] = useState(false);
  const add = () => {
    const wording = typed.trim();
    if (wording === '' || wording === text.trim() || others.includes(wording)) return;
    onChange({ others: [...others, wording] });
    setTyped('');
  };
  const without = (wording: string) => others.filter((other) => other !== wording);
  const take = (wording: string) =>
    onChange({ text: wording, others: others.flatMap((other) => (other !== wording ? [other] : text.trim() === '' ? [] : [text.trim()])) });
  return (
    <div className="-mt-2 mb-3 text-[13px]">
      {others.length > 0 && (
        <ul aria-label={`Other wordings: ${name}`} className="grid gap-0.5 border-l-4 border-line pl-2">
          {others.map((wording) => (
            <li key={wording} className="flex items-center gap-1 min-w-0">
              <span className="min-w-0 flex-1 break-words">{wording}</span>
              {!readOnly && (
                <>
                  <Button look="quiet" onClick={() => take(wording)} aria-label={`Take it: ${wording}`}>
                    Take it
                  </Button>
                  <IconButton label={`Drop ${wording}`} onClick={() => onChange({ others: without(wording) })}>
                    <X size={15} aria-hidden />
                  </IconButton>
                </>
              )}
            </li>
          ))}
        </ul>
      )}
      {!readOnly && !isAdding && (
        <Button look="quiet" className="-ml-3" onClick={() => setAdding(true)} aria-label={`Another wording… (${name})`}>
          Another wording…
        </Button>
      )}
      {isAdding && (
        <p className="flex gap-2 mt-1">
          <input
            className="field"
            aria-label={`Another wording of: ${name}`}
            autoFocus
            spellCheck
            maxLength={2000}
            value={typed}
            onChange={({ target }) => setTyped(target.value)}
            onKeyDown={(event) => {
              if (event.key !== 'Enter') return;
              event.preventDefault();
              add();
            }}
          />
          <Button onClick={add} disabled={typed.trim() === ''}>
            Keep it
          </Button>
          <Button look="quiet" onClick={() => setAdding(false)}>
            Done
          </Button>
        </p>
      )}
    </div>
  );
}
