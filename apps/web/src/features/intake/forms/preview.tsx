import type { FormShape } from '@zesting/contract';
import { checkAnswers, fieldsOf, getDay, type Answer, type Answers, type FormContent, type FormItem } from '@zesting/core';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { routesQuery } from '../../../api/production';
import { AskedItems } from '../../../asked/asked-items';
import { problemWords } from '../../../asked/problem-words';
import { LANGUAGES, LanguageContext } from '../../../language/language';
import { useClients, useSession } from '../../../lib/queries';
import { Button } from '../../../ui/button';

interface PreviewProps {
  readonly form: FormShape;
  readonly content: FormContent;
  readonly answers: Answers;
  readonly onAnswers: (answers: Answers) => void;
  readonly marked: string | null;
}

/** The real form, to be filled in: what is hidden by a condition is hidden here. Nothing is sent. */
export function Preview({ form, content, answers, onAnswers, marked }: PreviewProps) {
  const { todayOn } = useSession();
  const [checked, setChecked] = useState(false);
  const language = LANGUAGES[content.language];
  const items = useFilledIn(form, content.items);
  const { problems } = checkAnswers(items, answers, { todayOn: getDay(todayOn) });
  const fields = new Map(fieldsOf(items).map((field) => [field.key, field]));
  const words = Object.fromEntries(
    Object.entries(checked ? problems : {}).flatMap(([key, problem]) => {
      const field = fields.get(key);
      return field ? [[key, problemWords(problem, field, language)] as const] : [];
    }),
  );
  const count = Object.keys(problems).length;
  return (
    <section aria-label="The form as it is seen" className="card bg-paper p-4 lg:sticky lg:top-4 lg:max-h-[calc(100vh-2rem)] overflow-auto">
      <div className="flex items-center gap-2 mb-3 text-[13px]">
        <p className="text-muted flex-1">As it is seen. Try it: nothing is sent.</p>
        <Button look="quiet" onClick={() => setChecked(!checked)} aria-pressed={checked}>
          {checked ? 'Stop checking' : 'Check the answers'}
        </Button>
        <Button
          look="quiet"
          onClick={() => {
            onAnswers({});
            setChecked(false);
          }}
        >
          Empty it
        </Button>
      </div>
      {checked && (
        <p role="status" className={`text-[13px] font-medium mb-2 ${count === 0 ? 'text-pine' : 'text-rhubarb'}`}>
          {count === 0 ? 'This could be sent.' : `${count === 1 ? 'One answer keeps' : `${count} answers keep`} it from being sent.`}
        </p>
      )}
      <LanguageContext value={language}>
        <div lang={content.language}>
          <h2 className="text-xl mb-1">{content.title}</h2>
          {content.intro && <p className="text-muted mb-4 whitespace-pre-wrap">{content.intro}</p>}
          <AskedItems
            items={items}
            answers={answers}
            problems={words}
            onAnswer={(key: string, answer: Answer) => onAnswers({ ...answers, [key]: answer })}
            todayOn={todayOn}
            earliestOn={null}
            noticeOn={null}
            files={{}}
            uploadTo={null}
            onFile={nothing}
            onUnderWay={nothing}
            marked={marked ?? undefined}
          />
        </div>
      </LanguageContext>
    </section>
  );
}

const nothing = () => undefined;

/** What can be chosen of a client's channels and pillars: those of the only client, or of the first as an example. */
function useFilledIn(form: FormShape, items: readonly FormItem[]): readonly FormItem[] {
  const { clientOf } = useClients();
  const { data: routes } = useQuery(routesQuery);
  const client = clientOf(form.clientIds[0] ?? '');
  const named = (list: readonly { readonly id: string; readonly name: string }[] | undefined) =>
    list?.map(({ id, name }) => ({ value: id, label: name })) ?? [];
  const formats = [...new Map(routes?.map(({ formatId, formatName }) => [formatId, { id: formatId, name: formatName }])).values()];
  const choices = { channel: named(client?.channels), pillar: named(client?.pillars), format: named(formats) };
  return items.map((item) =>
    item.kind === 'channel' || item.kind === 'pillar' || item.kind === 'format' ? { ...item, options: choices[item.kind] } : item,
  );
}
