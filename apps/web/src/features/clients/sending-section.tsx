import { useQuery } from '@tanstack/react-query';
import { ChannelLinkBody, type ChannelLinkShape, type ChannelTriedShape, type ClientPageShape } from '@zesting/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import { channelLinksQuery } from '../../api/sending';
import { call, wordsOf } from '../../lib/api';
import { count, dayWords } from '../../lib/format';
import { useSession, useWrite } from '../../lib/queries';
import { useBodyForm, type BodyForm } from '../../lib/use-body-form';
import { useOpened } from '../../lib/use-opened';
import { Button } from '../../ui/button';
import { DayField } from '../../ui/day-field';
import { Field } from '../../ui/field';
import { FormDialog } from '../../ui/form-dialog';
import { Failed, Loading } from '../../ui/page';
import { Tag } from '../../ui/tags';
import { TextField } from '../../ui/text-field';

/** Which of the client's channels are reached by themselves, and how. */
export function SendingSection({ client }: { client: ClientPageShape }) {
  const found = useQuery(channelLinksQuery(client.id));
  const { opened, open, close } = useOpened();
  const channels = client.channels.flatMap(({ id, name, kind }) => (id ? { id, name, kind } : []));
  const linkOf = (channelId: string) => found.data?.links.find((link) => link.channelId === channelId);
  const edited = channels.find(({ id }) => opened === `link-${id}`);
  if (channels.length === 0) return null;
  return (
    <section aria-labelledby="by-itself" className="mt-8">
      <h2 id="by-itself" className="text-lg">
        Going out by itself
      </h2>
      <p className="text-muted mb-3 max-w-3xl">
        What is signed and placed on such a channel is sent at its minute, exactly as it was signed. On all others somebody posts by hand.
      </p>
      {found.isError && <Failed message={wordsOf(found.error)} onRetry={() => void found.refetch()} />}
      {found.isPending && <Loading />}
      {found.data && (
        <ul className="card max-w-4xl">
          {channels.map(({ id, name }) => {
            const link = linkOf(id);
            return (
              <li key={id} className="flex items-center gap-3 px-4 py-2.5 border-t border-line first:border-t-0">
                <div className="min-w-0 flex-1">
                  <h3 className="text-base break-words">
                    {name} {link && <Tag tone="pine">By itself</Tag>}
                  </h3>
                  <p className="text-muted text-[13px] break-words">{link ? linkWords(link) : 'Somebody posts there by hand.'}</p>
                </div>
                <Button look="quiet" aria-label={`${link ? 'Change…' : 'Send by itself…'} ${name}`} onClick={() => open(`link-${id}`)}>
                  {link ? 'Change…' : 'Send by itself…'}
                </Button>
              </li>
            );
          })}
        </ul>
      )}
      {found.data && edited && (
        <LinkDialog key={edited.id} channel={edited} link={linkOf(edited.id)} canSimulate={found.data.canSimulate} onClose={close} />
      )}
    </section>
  );
}

/** How a channel is reached, in words. */
const linkWords = ({ address, accessEndsOn, audience, dailyLimit, minuteLimit, lateMinutes }: ChannelLinkShape): string =>
  [
    address ?? 'Simulated channel: nothing is really published',
    audience && `to ${audience}`,
    accessEndsOn && `access ends on ${dayWords(accessEndsOn)}`,
    dailyLimit !== null && `at most ${count(dailyLimit, 'post')} in 24 hours`,
    minuteLimit !== null && `at most ${count(minuteLimit, 'post')} a minute`,
    lateMinutes > 0 ? `at most ${count(lateMinutes, 'minute')} late` : 'never late',
  ]
    .filter(Boolean)
    .join(', ');

interface LinkDialogProps {
  readonly channel: { readonly id: string; readonly name: string; readonly kind: string };
  readonly link: ChannelLinkShape | undefined;
  readonly canSimulate: boolean;
  readonly onClose: () => void;
}

function LinkDialog({ channel, link, canSimulate, onClose }: LinkDialogProps) {
  const save = useWrite(
    (body: ChannelLinkBody) => call(`/channels/${channel.id}/link`, { method: 'PUT', body, version: link?.version ?? 0 }),
    { quiet: true },
  );
  const remove = useWrite(() => call(`/channels/${channel.id}/link`, { method: 'DELETE' }));
  const form = useBodyForm<ChannelLinkBody>(
    ChannelLinkBody,
    {
      address: link ? link.address : canSimulate ? null : '',
      token: null,
      accessEndsOn: link?.accessEndsOn ?? null,
      audience: link?.audience ?? '',
      dailyLimit: link?.dailyLimit ?? null,
      minuteLimit: link?.minuteLimit ?? null,
      lateMinutes: link?.lateMinutes ?? 30,
    },
    {
      send: async (body) => {
        await save.mutateAsync(body);
        toast(`${channel.name} goes out by itself.`);
        onClose();
      },
    },
  );
  const { body, change, errorOf } = form;
  return (
    <FormDialog
      form={form}
      onClose={onClose}
      title={`${channel.name}: going out by itself`}
      action={link ? 'Change it' : 'Send by itself'}
      leave={link ? 'Leave as it was' : 'Not yet'}
      beside={
        link && (
          <Button disabled={remove.isPending} onClick={() => remove.mutate(undefined, { onSuccess: onClose })}>
            Post by hand from now on
          </Button>
        )
      }
    >
      <WhereFields form={form} link={link} canSimulate={canSimulate} />
      {
        channel.kind === 'newsletter' &&
        <TextField label="Who gets it" help="The name of the list there. Without it nothing is sent." value={body.audience} onChange={(audience) => change({ audience })} error={errorOf('audience')} /> // prettier-ignore
      }
      <NumberFields form={form} />
      {link && <Try channelId={channel.id} />}
    </FormDialog>
  );
}

interface FieldsProps {
  readonly form: BodyForm<ChannelLinkBody>;
}

/** Where the channel is, and how we show who we are. */
function WhereFields({ form, link, canSimulate }: FieldsProps & Pick<LinkDialogProps, 'link' | 'canSimulate'>) {
  const { todayOn } = useSession();
  const { body, change, errorOf } = form;
  return (
    <>
      {canSimulate && (
        <fieldset className="mb-3">
          <legend className="font-medium mb-1">Where</legend>
          {(
            [
              [true, 'The simulated channel that ships with Zesting: nothing is really published'],
              [false, 'A channel service at an address of its own'],
            ] as const
          ).map(([isSimulated, words]) => (
            <label key={words} className="flex items-center gap-2 min-h-8">
              <input
                type="radio"
                name="where"
                className="size-4 accent-pine"
                checked={(body.address === null) === isSimulated}
                onChange={() => change({ address: isSimulated ? null : (link?.address ?? '') })}
              />
              {words}
            </label>
          ))}
        </fieldset>
      )}
      {body.address !== null && (
        <>
          <Field label="Address" help="It speaks the interface that docs/channels.md describes." error={errorOf('address')}>
            {(control) => (
              <input
                {...control}
                type="url"
                className="field"
                placeholder="https://…"
                value={body.address ?? ''}
                onChange={(event) => change({ address: event.target.value.trim() })}
              />
            )}
          </Field>
          <Field
            label="Token"
            help={
              link?.hasToken && link.address === body.address
                ? 'One is kept. Type another to replace it.'
                : 'Kept sealed, never shown again.'
            }
            error={errorOf('token')}
          >
            {(control) => (
              <input
                {...control}
                type="password"
                autoComplete="off"
                className="field"
                value={body.token ?? ''}
                onChange={(event) => change({ token: event.target.value === '' ? null : event.target.value })}
              />
            )}
          </Field>
        </>
      )}
      <DayField
        label="Access ends on"
        help="Two weeks before it is said; later than that nothing is sent."
        todayOn={todayOn}
        value={body.accessEndsOn ?? ''}
        onChange={(on) => change({ accessEndsOn: on || null })}
      />
    </>
  );
}

function NumberFields({ form: { body, change, errorOf } }: FieldsProps) {
  return (
    <div className="grid grid-cols-2 gap-3">
      <LimitField
        label="Posts in 24 hours, at most"
        error={errorOf('dailyLimit')}
        value={body.dailyLimit}
        onChange={(dailyLimit) => change({ dailyLimit })}
      />
      <LimitField
        label="Posts a minute, at most"
        error={errorOf('minuteLimit')}
        value={body.minuteLimit ?? null}
        onChange={(minuteLimit) => change({ minuteLimit })}
      />
      <Field label="Minutes late, at most" help="Later than that it counts as missed." error={errorOf('lateMinutes')}>
        {(control) => (
          <input
            {...control}
            type="number"
            min={0}
            max={1440}
            className="field"
            value={body.lateMinutes}
            onChange={(event) => change({ lateMinutes: Math.round(Number(event.target.value)) })}
          />
        )}
      </Field>
    </div>
  );
}

interface LimitFieldProps {
  readonly label: string;
  readonly error: string | undefined;
  /** null: no limit */
  readonly value: number | null;
  readonly onChange: (limit: number | null) => void;
}

function LimitField({ label, error, value, onChange }: LimitFieldProps) {
  return (
    <Field label={label} error={error}>
      {(control) => (
        <input
          {...control}
          type="number"
          min={1}
          className="field"
          placeholder="any"
          value={value ?? ''}
          onChange={(event) => onChange(event.target.value === '' ? null : Math.round(Number(event.target.value)))}
        />
      )}
    </Field>
  );
}

/** Asks the channel whether it answers, as it is kept now. */
function Try({ channelId }: { channelId: string }) {
  const [said, setSaid] = useState<ChannelTriedShape>();
  const tried = useWrite(() => call<ChannelTriedShape>(`/channels/${channelId}/link/try`, { method: 'POST' }));
  return (
    <p className="flex flex-wrap items-center gap-2 mb-3" aria-live="polite">
      <Button disabled={tried.isPending} onClick={() => tried.mutate(undefined, { onSuccess: setSaid })}>
        Try it
      </Button>
      {said && (
        <span className={said.name ? 'text-pine' : 'text-rhubarb font-medium'}>
          {said.name ? `It answers: ${said.name}` : `It does not answer: ${said.reason ?? ''}`}
        </span>
      )}
    </p>
  );
}
