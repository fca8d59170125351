import type { MarkerBody, MarkerShape } from '@zesting/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import { call } from '../../lib/api';
import { dayWords } from '../../lib/format';
import { useClients, useSession, useWrite } from '../../lib/queries';
import { markerKindWords } from '../../lib/words';
import { MarkerDialog } from '../../parts/marker-dialog';
import { Button } from '../../ui/button';
import { Dialog } from '../../ui/dialog';
import { Menu, MenuItem } from '../../ui/menu';

/** What stands on a day and is no content. What was added by hand can be taken away, and put back. */
export function MarkerLine({ marker }: { marker: MarkerShape }) {
  const { clientOf, client } = useClients();
  const { role } = useSession();
  const code = client || marker.clientId === null ? '' : `${clientOf(marker.clientId)?.code ?? ''} `;
  const words = `${code}${marker.name}`;
  const tone = marker.kind === 'holiday' || marker.kind === 'closure' || marker.kind === 'blackout' ? 'text-rind' : 'text-lake';
  const text = (
    <>
      <span aria-hidden>{marker.kind === 'observance' ? '▫ ' : '▪ '}</span>
      {words}
      <span className="sr-only"> ({markerKindWords(marker)})</span>
    </>
  );
  const className = `block w-full text-left px-1 text-[11.5px] truncate ${tone}`;
  const title = `${words}: ${markerKindWords(marker)}${marker.startOn === marker.endOn ? '' : `, ${dayWords(marker.startOn)} to ${dayWords(marker.endOn)}`}`;
  const mayRemove = marker.id !== null && (role === 'lead' || (role === 'manager' && marker.clientId !== null));
  if (!mayRemove)
    return (
      <p className={className} title={title}>
        {text}
      </p>
    );
  return <Removable marker={{ ...marker, id: marker.id ?? '' }} className={className} title={title} trigger={text} />;
}

function Removable({
  marker,
  className,
  title,
  trigger,
}: {
  marker: MarkerShape & { id: string };
  className: string;
  title: string;
  trigger: React.ReactNode;
}) {
  const add = useWrite((body: MarkerBody) => call('/markers', { method: 'POST', body }));
  const remove = useWrite((id: string) => call(`/markers/${id}`, { method: 'DELETE' }));
  const [isOpen, setOpen] = useState(false);
  const [isAsking, setAsking] = useState(false);
  const { clientId, name, startOn, endOn, leadDays, kindId } = marker;
  const kind = marker.kind as MarkerBody['kind']; // what has an id was added by hand
  const go = () =>
    remove.mutate(marker.id, {
      onSuccess: () =>
        toast(`${name} is off the calendar.`, {
          action: { label: 'Undo', onClick: () => add.mutate({ clientId, kind, name, startOn, endOn, leadDays, kindId }) },
        }),
    });
  return (
    <>
      <Menu label={title} className={`${className} hover:underline min-h-[24px]`} trigger={trigger}>
        <p className="px-2.5 py-1 text-[13px] text-muted max-w-72">{title}</p>
        {marker.version !== null && <MenuItem onSelect={() => setOpen(true)}>Change it, and its run-up…</MenuItem>}
        <MenuItem onSelect={marker.isBound ? () => setAsking(true) : go}>
          {marker.isBound ? 'Take it off the calendar…' : 'Take it off the calendar'}
        </MenuItem>
      </Menu>
      {isOpen && <MarkerDialog marker={marker} onClose={() => setOpen(false)} />}
      {isAsking && (
        <Dialog
          open
          onClose={() => setAsking(false)}
          title={`Take “${name}” off the calendar?`}
          description="Its run-up, or what was said to be made on it, goes with it for good. Pieces that were made stay."
        >
          <div className="flex justify-end gap-2">
            <Button onClick={() => setAsking(false)}>Leave it there</Button>
            <Button
              look="danger"
              disabled={remove.isPending}
              onClick={() => remove.mutate(marker.id, { onSuccess: () => toast(`${name} is off the calendar.`) })}
            >
              Take it off
            </Button>
          </div>
        </Dialog>
      )}
    </>
  );
}
