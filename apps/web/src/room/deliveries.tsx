import type { RoomDeliveryShape, UploadShape } from '@zesting/contract';
import { useState, type FormEvent } from 'react';
import { call, wordsOf } from '../lib/api';
import { bytesWords, dayWords } from '../lib/format';
import { useUploads } from '../lib/use-uploads';
import { Button } from '../ui/button';
import { Field } from '../ui/field';
import { PickFiles } from '../ui/pick-files';
import { Tag } from '../ui/tags';
import { UploadList } from '../ui/upload-list';

interface DeliveriesProps {
  readonly deliveries: readonly RoomDeliveryShape[];
  readonly contactId: string;
  /** whether the agency looks: then nothing can be brought */
  readonly isView: boolean;
  readonly onBrought: () => void;
}

/** What the agency waits for from this contact: files, links and words are kept one by one, and sent off together. */
export function Deliveries({ deliveries, contactId, isView, onBrought }: DeliveriesProps) {
  return deliveries.map((delivery) => (
    <Delivery key={delivery.stepId} delivery={delivery} contactId={contactId} isView={isView} onBrought={onBrought} />
  ));
}

function Delivery({ delivery, contactId, isView, onBrought }: { delivery: RoomDeliveryShape } & Omit<DeliveriesProps, 'deliveries'>) {
  const isDone = delivery.broughtAt !== null;
  return (
    <section aria-label={`${delivery.title}: ${delivery.pieceTitle}`} className="card p-4 mb-5">
      <header className="flex flex-wrap items-center gap-2">
        <h2 className="text-lg break-words">
          {delivery.title}: {delivery.pieceTitle}
        </h2>
        {isDone ? (
          <Tag tone="pine">Brought {dayWords(delivery.broughtAt?.slice(0, 10) ?? '')}</Tag>
        ) : (
          <Tag tone={delivery.isPastDue ? 'rhubarb' : 'lake'}>
            {delivery.isPastDue ? `Was due ${dayWords(delivery.dueOn)}` : `By ${dayWords(delivery.dueOn)}`}
          </Tag>
        )}
      </header>
      <p className="text-muted text-[13px] mb-2">We need this from you to go on. Leave it here bit by bit: what you leave is kept.</p>
      {delivery.words && <p className="whitespace-pre-wrap break-words mb-2">{delivery.words}</p>}
      <Brought delivery={delivery} contactId={contactId} canTakeBack={!isView && !isDone} onBrought={onBrought} />
      {!isView && <Bring delivery={delivery} contactId={contactId} onBrought={onBrought} />}
    </section>
  );
}

const address = (contactId: string, stepId: string): string => `/room/${contactId}/deliveries/${stepId}`;

interface BroughtProps {
  readonly delivery: RoomDeliveryShape;
  readonly contactId: string;
  readonly canTakeBack: boolean;
  readonly onBrought: () => void;
}

/** What has been brought so far. */
function Brought({ delivery, contactId, canTakeBack, onBrought }: BroughtProps) {
  const [wrong, setWrong] = useState<string>();
  const takeBack = (id: string) =>
    call(`${address(contactId, delivery.stepId)}/material/${id}`, { method: 'DELETE' }).then(onBrought, (error: unknown) =>
      setWrong(wordsOf(error)),
    );
  if (delivery.brought.length === 0) return null;
  return (
    <>
      <ul aria-label="Brought so far" className="mb-2">
        {delivery.brought.map(({ id, label, file, url, text }) => {
          const name = label || (file?.name ?? url ?? text ?? '');
          return (
            <li key={id} className="flex items-center gap-3 border-t border-line first:border-t-0 min-h-11 sm:min-h-9">
              <span className="flex-1 min-w-0 break-words">
                <span className="line-clamp-2">{name}</span>
              </span>
              {file && <span className="text-muted text-[13px] tabular whitespace-nowrap">{bytesWords(file.bytes)}</span>}
              {canTakeBack && (
                <button type="button" className="text-pine underline min-h-11 sm:min-h-8" onClick={() => void takeBack(id)}>
                  Take out<span className="sr-only"> {name}</span>
                </button>
              )}
            </li>
          );
        })}
      </ul>
      {wrong && (
        <p role="alert" className="text-rhubarb font-medium mb-2">
          {wrong}
        </p>
      )}
    </>
  );
}

function Bring({ delivery, contactId, onBrought }: Pick<BroughtProps, 'delivery' | 'contactId' | 'onBrought'>) {
  const path = address(contactId, delivery.stepId);
  const [text, setText] = useState('');
  const [busy, setBusy] = useState(false);
  const [wrong, setWrong] = useState<string>();
  const send = async (what: string, body: object) => {
    setBusy(true);
    setWrong(undefined);
    try {
      await call(`${path}/${what}`, { method: 'POST', body });
      onBrought();
      return true;
    } catch (error) {
      setWrong(wordsOf(error));
      return false;
    } finally {
      setBusy(false);
    }
  };
  const uploads = useUploads(`/room/${contactId}/uploads`, ({ assetId }: UploadShape) => void send('material', { label: '', assetId }));
  const underWay = uploads.list.some(({ state }) => state !== 'refused');
  const keep = async (): Promise<boolean> => {
    const typed = text.trim();
    if (typed === '') return true;
    const isLink = /^https?:\/\/\S+$/.test(typed);
    const kept = await send('material', { label: '', ...(isLink ? { url: typed } : { text: typed }) });
    if (kept) setText('');
    return kept;
  };
  const done = async (event: FormEvent) => {
    event.preventDefault();
    if (underWay) return setWrong('A file is still on its way: let it arrive, or give it up.');
    if (await keep()) await send('done', { words: '' });
  };
  const isDone = delivery.broughtAt !== null;
  return (
    <form noValidate onSubmit={(event) => void done(event)}>
      <UploadList uploads={uploads} />
      <Field label="A link, or words" help={isDone ? 'Anything more.' : 'One link or a text at a time; add as many as you like.'}>
        {(control) => (
          <textarea
            {...control}
            className="field"
            rows={2}
            maxLength={20_000}
            value={text}
            onChange={({ target }) => setText(target.value)}
          />
        )}
      </Field>
      {wrong && (
        <p role="alert" className="text-rhubarb font-medium mb-2">
          {wrong}
        </p>
      )}
      <div className="flex flex-wrap gap-2">
        <PickFiles label={`Files for ${delivery.title}`} className="min-h-11 sm:min-h-8" onPick={uploads.add}>
          Add files
        </PickFiles>
        <Button className="min-h-11 sm:min-h-8" disabled={busy || text.trim() === ''} onClick={() => void keep()}>
          Add this
        </Button>
        {!isDone && (
          <Button look="main" type="submit" className="min-h-11 sm:min-h-8 ml-auto" disabled={busy}>
            That is all
          </Button>
        )}
      </div>
    </form>
  );
}
