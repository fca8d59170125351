import { useInfiniteQuery, useQuery } from '@tanstack/react-query';
import type { FormItem } from '@zesting/core';
import { useState } from 'react';
import { formQuery, formsQuery } from '../../../api/forms';
import { Button } from '../../../ui/button';
import { Dialog } from '../../../ui/dialog';
import { Field } from '../../../ui/field';
import { takenOver } from './items';
import { KIND_WORDS } from './words';

interface TakeProps {
  readonly formId: string;
  readonly items: readonly FormItem[];
  readonly onTake: (item: FormItem) => void;
  readonly onClose: () => void;
}

/** Takes a question over from another form. */
export function TakeItemDialog({ formId, items, onTake, onClose }: TakeProps) {
  const forms = useInfiniteQuery(formsQuery(''));
  const others = forms.data?.pages.flatMap((page) => page.items).filter(({ id }) => id !== formId) ?? [];
  const [picked, setPicked] = useState('');
  const otherId = picked || others[0]?.id || '';
  const { data: other } = useQuery({ ...formQuery(otherId), enabled: otherId !== '' });
  return (
    <Dialog open onClose={onClose} title="Take a question from another form">
      {others.length === 0 ? (
        <p className="text-muted">There is no other form.</p>
      ) : (
        <>
          <Field label="Form">
            {(control) => (
              <select {...control} className="field" value={otherId} onChange={(event) => setPicked(event.target.value)}>
                {others.map(({ id, title }) => (
                  <option key={id} value={id}>
                    {title}
                  </option>
                ))}
              </select>
            )}
          </Field>
          <ul className="divide-y divide-line">
            {other?.content.items.map((item) => (
              <li key={item.key} className="flex items-center gap-3 min-h-9">
                <span className="flex-1 min-w-0 truncate">{item.label}</span>
                <span className="text-muted text-[13px]">{KIND_WORDS[item.kind]}</span>
                <Button
                  look="quiet"
                  aria-label={`Take over: ${item.label}`}
                  onClick={() => {
                    onTake(takenOver(item, items));
                    onClose();
                  }}
                >
                  Take over
                </Button>
              </li>
            ))}
          </ul>
        </>
      )}
    </Dialog>
  );
}
