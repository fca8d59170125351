import { useQuery } from '@tanstack/react-query';
import { SpreadBody, type ClientPageShape, type SpreadLineBody, type SpreadMadeShape, type SpreadShape } from '@zesting/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import { teamQuery } from '../../../api/clients';
import { guidelinesQuery } from '../../../api/guidelines';
import { routesQuery } from '../../../api/production';
import { call } from '../../../lib/api';
import { useWrite } from '../../../lib/queries';
import { useBodyForm } from '../../../lib/use-body-form';
import { formatsOf } from '../../../lib/formats-of';
import { Button } from '../../../ui/button';
import { FormDialog } from '../../../ui/form-dialog';
import { ListEditor } from '../../../ui/list-editor';
import { OptionField } from '../../../ui/option-field';
import { TextField } from '../../../ui/text-field';
import { SpreadLineFields } from './spread-line-fields';

interface SpreadDialogProps {
  readonly client: ClientPageShape;
  readonly spread: SpreadShape | undefined;
  readonly onClose: () => void;
}

/** A spread: its name, the kind of source, and each output with all that is said of it. */
export function SpreadDialog({ client, spread: shown, onClose }: SpreadDialogProps) {
  const [spread] = useState(shown); // as it was opened: what others do meanwhile must be noticed, not overwritten
  const { data: routes = [] } = useQuery(routesQuery);
  const { data: guidelines } = useQuery(guidelinesQuery(`clientId=${client.id}`));
  const { data: team } = useQuery(teamQuery(client.id));
  const save = useWrite(
    (body: SpreadBody) =>
      spread
        ? call(`/spreads/${spread.id}`, { method: 'PUT', body, version: spread.version })
        : call<SpreadMadeShape>(`/clients/${client.id}/spreads`, { method: 'POST', body }),
    { quiet: true },
  );
  const away = useWrite(() => call(`/spreads/${spread?.id ?? ''}/archive`, { method: 'POST', body: { archived: true } }));
  const form = useBodyForm<SpreadBody>(SpreadBody, bodyOf(spread), {
    send: async (body) => {
      await save.mutateAsync(body);
      toast(spread ? 'Changed. What was made by it stays as it was made.' : 'Kept. Put it to use once it is right.');
      onClose();
    },
    words: { name: { isNotBlank: 'Give it a name.' }, lines: { arrayNotEmpty: 'Say at least one thing that is made.' } },
  });
  const { body, change, errorOf } = form;
  const formats = formatsOf(routes);
  const channels = client.channels.flatMap(({ id, name }) => (id ? [{ id, name }] : []));
  const make = (): SpreadLineBody => ({
    key: newKey(body.lines),
    name: '',
    channelId: channels[0]?.id ?? null,
    routeId: routes[0]?.id ?? '',
    offset: { count: 0, unit: 'working_days' },
    change: '',
    needsCopy: false,
    needsPicture: false,
    shape: 'as_it_is',
    callToAction: '',
    guidelineId: null,
    doers: [],
    obstacle: '',
  });
  return (
    <FormDialog
      form={form}
      onClose={onClose}
      wide
      title={spread ? 'Change the spread' : 'New spread'}
      action={spread ? 'Change it' : 'Keep it'}
      leave="Leave as it was"
      beside={
        spread && (
          <Button disabled={away.isPending} onClick={() => away.mutate(undefined, { onSuccess: onClose })}>
            Put it away
          </Button>
        )
      }
    >
      <div className="grid sm:grid-cols-2 gap-x-3">
        <TextField label="Name" required maxLength={80} error={errorOf('name')} value={body.name} onChange={(name) => change({ name })} />
        <OptionField
          label="Made from"
          none="Any kind of piece"
          error={errorOf('formatId')}
          value={body.formatId}
          options={formats}
          onChange={(formatId) => change({ formatId })}
        />
      </div>
      <h3 className="text-base mb-1">What is made</h3>
      {errorOf('lines') && <p className="text-rhubarb font-medium text-[13px] mb-1">{errorOf('lines')}</p>}
      <div className="mb-3">
        <ListEditor<SpreadLineBody>
          label="What is made"
          ordered
          items={body.lines}
          onChange={(lines) => change({ lines })}
          nameOf={({ name }) => name || 'this one'}
          make={make}
          addWords="Add an output"
          empty="Nothing yet."
        >
          {(line, put, index) => (
            <SpreadLineFields
              line={line}
              put={put}
              index={index}
              channels={channels}
              routes={routes}
              guidelines={guidelines?.guidelines ?? []}
              roles={team?.roles ?? []}
            />
          )}
        </ListEditor>
      </div>
    </FormDialog>
  );
}

/** A key that no output of the spread has. */
function newKey(lines: readonly SpreadLineBody[]): string {
  for (let number = lines.length + 1; ; number++) if (!lines.some(({ key }) => key === `output-${number}`)) return `output-${number}`;
}

const bodyOf = (spread: SpreadShape | undefined): SpreadBody => ({
  name: spread?.name ?? '',
  formatId: spread?.formatId ?? null,
  lines: (spread?.lines ?? []).map(({ channelName: _c, routeName: _r, formatName: _f, guidelineTitle: _g, doers, ...line }) => ({
    ...line,
    doers: doers.map(({ skill, personId }) => ({ skill, personId })),
  })),
});
