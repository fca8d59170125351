import { AudiencesBody, type ClientShape, type RhythmShape } from '@zesting/contract';
import { reachOf } from '@zesting/core';
import { toast } from 'sonner';
import { call } from '../../lib/api';
import { useWrite } from '../../lib/queries';
import { useBodyForm } from '../../lib/use-body-form';
import { Button } from '../../ui/button';

const NUMBERS = new Intl.NumberFormat('en-GB', { maximumFractionDigits: 0 });
const figure = (value: number): string => NUMBERS.format(value);
/** Of those who follow a channel, one in five sees a post, until somebody says otherwise. */
const USUAL_SEEN = 20;

interface ReachProps {
  readonly client: ClientShape;
  readonly rhythm: RhythmShape;
}

/** What the rhythm of four weeks reaches, by what somebody guesses of each channel; reckoned while it is typed, kept when that is asked for. */
export function Reach({ client, rhythm: { audiences, slotsAhead } }: ReachProps) {
  const save = useWrite((body: AudiencesBody) => call(`/clients/${client.id}/plan/audiences`, { method: 'PUT', body }), { quiet: true });
  const first: AudiencesBody = {
    overlap: audiences.overlap,
    channels: client.channels.map(
      ({ id: channelId }) => audiences.channels.find((one) => one.channelId === channelId) ?? { channelId, audience: 0, seen: USUAL_SEEN },
    ),
  };
  const form = useBodyForm<AudiencesBody>(AudiencesBody, first, {
    send: async (body) => {
      await save.mutateAsync(body);
      toast('Kept');
    },
  });
  const { body, change } = form;
  const postsOf = (channelId: string) => slotsAhead.find((one) => one.channelId === channelId)?.slots ?? 0;
  const reach = reachOf(
    body.channels.map(({ channelId, audience, seen }) => ({ id: channelId, audience, seen: seen / 100, posts: postsOf(channelId) })),
    body.overlap / 100,
  );
  const put = (channelId: string, part: { audience?: number; seen?: number }) =>
    change({ channels: body.channels.map((one) => (one.channelId === channelId ? { ...one, ...part } : one)) });
  const isChanged = JSON.stringify(body) !== JSON.stringify(first);
  return (
    <form noValidate onSubmit={form.onSubmit} aria-labelledby="reach" className="card p-4 mt-4 max-w-5xl overflow-x-auto">
      <h2 id="reach" className="text-base">
        What four weeks of it reach
      </h2>
      <p className="text-muted text-[13px] mb-2">A projection by what you guess, to compare rhythms with; it promises nothing.</p>
      <table className="w-full text-[13px] tabular">
        <thead>
          <tr className="text-muted text-left">
            {['Channel', 'Followers', 'See a post', 'Posts', 'Contacts', 'People'].map((name, index) => (
              <th key={name} scope="col" className={`font-medium py-1 ${index > 2 ? 'text-right' : ''}`}>
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {body.channels.map(({ channelId, audience, seen }, index) => {
            const name = client.channels.find(({ id }) => id === channelId)?.name ?? '';
            const row = reach.channels[index];
            return (
              <tr key={channelId} className="border-t border-line">
                <th scope="row" className="font-normal text-left py-1">
                  {name}
                </th>
                <td>
                  <Figure
                    label={`Followers of ${name}`}
                    value={audience}
                    most={1_000_000_000}
                    onChange={(value) => put(channelId, { audience: value })}
                  />
                </td>
                <td>
                  <Figure
                    label={`Who sees a post on ${name}, percent`}
                    value={seen}
                    most={100}
                    onChange={(value) => put(channelId, { seen: value })}
                  />{' '}
                  %
                </td>
                <td className="text-right">{row?.posts ?? 0}</td>
                <td className="text-right">{figure(row?.contacts ?? 0)}</td>
                <td className="text-right">{figure(row?.people ?? 0)}</td>
              </tr>
            );
          })}
        </tbody>
        <tfoot>
          <tr className="border-t border-line-strong font-medium">
            <th scope="row" colSpan={3} className="text-left font-medium py-1">
              <Figure label="Overlap, percent" value={body.overlap} most={100} onChange={(overlap) => change({ overlap })} /> % follow a
              larger channel too
            </th>
            <td className="text-right">{reach.posts}</td>
            <td className="text-right">{figure(reach.contacts)}</td>
            <td className="text-right">{figure(reach.people)}</td>
          </tr>
        </tfoot>
      </table>
      {form.wrong && (
        <p role="alert" className="text-rhubarb font-medium mt-2">
          {form.wrong}
        </p>
      )}
      {isChanged && (
        <Button look="main" type="submit" className="mt-2" disabled={form.busy}>
          Keep
        </Button>
      )}
    </form>
  );
}

interface FigureProps {
  readonly label: string;
  readonly value: number;
  readonly most: number;
  readonly onChange: (value: number) => void;
}

function Figure({ label, value, most, onChange }: FigureProps) {
  return (
    <input
      className="field tabular w-28 max-w-full inline-block"
      type="number"
      min={0}
      max={most}
      aria-label={label}
      value={value}
      onChange={(event) => onChange(Math.min(most, Math.max(0, Math.round(Number(event.target.value) || 0))))}
    />
  );
}
