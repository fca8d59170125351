import { useQuery } from '@tanstack/react-query';
import type { FormShape } from '@zesting/contract';
import { fieldsOf, isAgencyOnly } from '@zesting/core';
import { useState } from 'react';
import { formVersionQuery } from '../../../api/forms';
import { instantWords } from '../../../lib/format';
import { Empty, Loading } from '../../../ui/page';
import { Tag } from '../../../ui/tags';
import { KIND_WORDS } from './words';

/** What the form asked, version by version. Requests read as they were asked. */
export function VersionsTab({ form }: { form: FormShape }) {
  const [open, setOpen] = useState<number | null>(null);
  if (form.versions.length === 0) return <Empty title="Nothing is published yet">Each time you publish, a version is kept.</Empty>;
  return (
    <ol className="grid gap-2">
      {form.versions.map(({ number, publishedAt, publishedBy }) => (
        <li key={number} className="card">
          <button
            type="button"
            aria-expanded={open === number}
            className="w-full flex items-center gap-3 px-3 min-h-10 text-left hover:bg-sunk"
            onClick={() => setOpen(open === number ? null : number)}
          >
            <span className="font-medium">Version {number}</span>
            {number === form.publishedVersion && <Tag tone="pine">asked now</Tag>}
            <span className="text-muted text-[13px] ml-auto">
              {instantWords(publishedAt)}, {publishedBy}
            </span>
          </button>
          {open === number && <Version formId={form.id} number={number} />}
        </li>
      ))}
    </ol>
  );
}

function Version({ formId, number }: { formId: string; number: number }) {
  const { data } = useQuery(formVersionQuery(formId, number));
  if (!data) return <Loading />;
  const fields = fieldsOf(data.content.items);
  return (
    <ul className="border-t border-line px-3 py-2">
      {fields.map((field) => (
        <li key={field.key} className="flex items-center gap-3 min-h-7 text-[13px]">
          <span className="flex-1 min-w-0 truncate">{field.label}</span>
          {isAgencyOnly(field) && <span className="text-muted">agency only</span>}
          {field.needed && <Tag tone="pine">{field.needed === true ? 'needed' : 'needed at times'}</Tag>}
          <span className="text-muted">{KIND_WORDS[field.kind]}</span>
        </li>
      ))}
    </ul>
  );
}
