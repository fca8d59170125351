import type { ChannelBody, ChannelKind, ClientPageShape } from '@zesting/contract';
import { CHANNEL_STOCK } from '@zesting/core';
import { EditedSection } from '../../ui/edited';
import { Field } from '../../ui/field';
import { TimeField } from '../../ui/setup-fields';
import { ListEditor } from '../../ui/list-editor';
import { CHANNEL_WORDS } from '../../lib/words';
import { useClientSection } from './use-client-section';

const SHAPES = ['1:1', '4:5', '9:16', '16:9', '3:2', '2:3', '2:1'];
/** What a kind begins with. */
const stockOf = (kind: ChannelKind) => ({ ...CHANNEL_STOCK[kind], otherShapes: [...CHANNEL_STOCK[kind].otherShapes] });

const LIMITS = [
  { key: 'copyLimit', words: 'Characters' },
  { key: 'tagLimit', words: 'Tags' },
  { key: 'mediaLimit', words: 'Pictures' },
] as const;

/** Where the client publishes: kind, shape, limits, lead and usual time. */
export function ChannelsSection({ client }: { client: ClientPageShape }) {
  const edited = useClientSection(
    'channels',
    client,
    ({ channels }) => ({ channels }),
    (body) => body,
  );
  return (
    <EditedSection
      title="Channels"
      note="Pieces keep a channel that is taken out; no new one gets it. Before anything goes out it is checked against these rules."
      edited={edited}
    >
      <ListEditor<ChannelBody>
        label="Channels"
        ordered
        items={edited.draft.channels}
        archived={client.archived.channels}
        onChange={(channels) => edited.change({ channels })}
        nameOf={(channel) => channel.name}
        make={() => ({ kind: 'photo_feed', ...stockOf('photo_feed'), usualTime: null, postingAddress: null })}
        addWords="Add a channel"
        empty="None yet. A piece needs a channel to go out on."
      >
        {(channel, put) => <ChannelFields channel={channel} put={put} usualTime={client.usualTime} />}
      </ListEditor>
    </EditedSection>
  );
}

function ChannelFields({
  channel,
  put,
  usualTime,
}: {
  channel: ChannelBody;
  put: (part: Partial<ChannelBody>) => void;
  usualTime: string;
}) {
  const [width = 1, height = 1] = channel.ratio.split(':').map(Number);
  const shapes = SHAPES.includes(channel.ratio) ? SHAPES : [channel.ratio, ...SHAPES];
  return (
    <>
      <div className="grid gap-x-3 grid-cols-2 md:grid-cols-[minmax(0,1.4fr)_minmax(0,1.2fr)_7rem_repeat(3,5.2rem)] lg:grid-cols-[minmax(0,1.4fr)_minmax(0,1.2fr)_8rem_repeat(3,5.4rem)_5.6rem_6.4rem]">
        <Field label="Name">
          {(control) => (
            <input {...control} className="field" value={channel.name} onChange={(event) => put({ name: event.target.value })} />
          )}
        </Field>
        <Field label="Kind">
          {(control) => (
            <select
              {...control}
              className="field"
              value={channel.kind}
              onChange={(event) => put({ kind: event.target.value as ChannelKind })}
            >
              {Object.entries(CHANNEL_WORDS).map(([kind, words]) => (
                <option key={kind} value={kind}>
                  {words}
                </option>
              ))}
            </select>
          )}
        </Field>
        <Field label="Shape">
          {(control) => (
            <span className="flex items-center gap-2">
              <select {...control} className="field" value={channel.ratio} onChange={(event) => put({ ratio: event.target.value })}>
                {shapes.map((shape) => (
                  <option key={shape}>{shape}</option>
                ))}
              </select>
              <span
                aria-hidden
                className="inline-block border-2 border-line-strong rounded-sm shrink-0"
                style={{ width: (22 * width) / Math.max(width, height), height: (22 * height) / Math.max(width, height) }}
              />
            </span>
          )}
        </Field>
        {LIMITS.map(({ key, words }) => (
          <Field key={key} label={words}>
            {(control) => (
              <input
                {...control}
                type="number"
                min={key === 'tagLimit' ? 0 : 1}
                className="field"
                placeholder="any"
                value={channel[key] ?? ''}
                onChange={(event) => put({ [key]: event.target.value === '' ? null : Number(event.target.value) })}
              />
            )}
          </Field>
        ))}
        <Field label="Lead, days">
          {(control) => (
            <input
              {...control}
              type="number"
              min={0}
              max={30}
              className="field"
              title="Working days by which the last step must be done, beyond the day before publishing"
              value={channel.leadDays}
              onChange={(event) => put({ leadDays: Number(event.target.value) })}
            />
          )}
        </Field>
        <TimeField
          label="Usual time"
          optional
          placeholder={usualTime}
          value={channel.usualTime ?? ''}
          onChange={(time) => put({ usualTime: time || null })}
        />
      </div>
      <ChannelRules channel={channel} put={put} />
      <SeenThere channel={channel} put={put} />
    </>
  );
}

const TRUTHS = [
  ['needsMedia', 'Needs a picture or clip'],
  ['countsTags', 'Tags stand in the text and count'],
  ['linksWork', 'Addresses in the text can be pressed'],
  ['hasAddress', 'What is out there has an address'],
] as const;

/** What is checked before anything goes out there, and where it is posted by hand. */
function ChannelRules({ channel, put }: { channel: ChannelBody; put: (part: Partial<ChannelBody>) => void }) {
  return (
    <div className="flex flex-wrap items-start gap-x-5 gap-y-1 mb-2">
      <fieldset className="flex flex-wrap gap-x-5 gap-y-1 pt-1">
        <legend className="sr-only">Rules of {channel.name}</legend>
        {TRUTHS.map(([key, words]) => (
          <label key={key} className="flex items-center gap-1.5 min-h-8 text-[13px]">
            <input
              type="checkbox"
              className="size-4 accent-pine"
              checked={channel[key] ?? key === 'linksWork'}
              onChange={(event) => put({ [key]: event.target.checked })}
            />
            {words}
          </label>
        ))}
      </fieldset>
      <Field label="Picture width, least">
        {(control) => (
          <input
            {...control}
            type="number"
            min={1}
            max={20_000}
            className="field w-36"
            placeholder="any, in pixels"
            value={channel.minWidth ?? ''}
            onChange={(event) => put({ minWidth: event.target.value === '' ? null : Number(event.target.value) })}
          />
        )}
      </Field>
      <div className="grow min-w-56 max-w-md">
        <Field label="Posted by hand at">
          {(control) => (
            <input
              {...control}
              type="url"
              className="field"
              placeholder="https://…"
              value={channel.postingAddress ?? ''}
              onChange={(event) => put({ postingAddress: event.target.value.trim() || null })}
            />
          )}
        </Field>
      </div>
    </div>
  );
}

const NUMBERS = [
  ['clipMinSeconds', 'Clips run at least, seconds', 'any', 86_400],
  ['clipMaxSeconds', 'Clips run at most, seconds', 'any', 86_400],
  ['fileLimitMb', 'A file weighs at most, MB', 'any', 100_000],
  ['foldsAt', 'Text is folded after, characters', 'never', 100_000],
] as const;

const COVERED = [
  ['safeTop', 'top'],
  ['safeBottom', 'bottom'],
  ['safeSides', 'either side'],
] as const;

/** How pictures, clips and text are seen there. */
function SeenThere({ channel, put }: { channel: ChannelBody; put: (part: Partial<ChannelBody>) => void }) {
  const shapes = channel.otherShapes ?? [];
  return (
    <details className="mb-2">
      <summary className="cursor-pointer text-[13px] text-pine leading-8">How it is seen there</summary>
      <div className="flex flex-wrap items-start gap-x-5 gap-y-1 pt-1">
        <fieldset className="flex flex-wrap gap-x-4 gap-y-1">
          <legend className="text-[13px] font-medium">Shapes of {channel.name}</legend>
          <label className="flex items-center gap-1.5 min-h-8 text-[13px]">
            <input
              type="checkbox"
              className="size-4 accent-pine"
              checked={channel.cutsMedia ?? false}
              onChange={({ target }) => put({ cutsMedia: target.checked })}
            />
            What has another shape is cut
          </label>
          {channel.cutsMedia && (
            <span
              className="flex flex-wrap items-center gap-x-3 text-[13px]"
              role="group"
              aria-label={`Shown whole on ${channel.name} too`}
            >
              Shown whole too:
              {SHAPES.filter((shape) => shape !== channel.ratio).map((shape) => (
                <label key={shape} className="flex items-center gap-1 min-h-8">
                  <input
                    type="checkbox"
                    className="size-4 accent-pine"
                    checked={shapes.includes(shape)}
                    onChange={({ target }) =>
                      put({ otherShapes: target.checked ? [...shapes, shape] : shapes.filter((other) => other !== shape) })
                    }
                  />
                  {shape}
                </label>
              ))}
            </span>
          )}
        </fieldset>
        {NUMBERS.map(([key, words, none, most]) => (
          <Field key={key} label={words}>
            {(control) => (
              <input
                {...control}
                type="number"
                min={1}
                max={most}
                className="field w-32"
                placeholder={none}
                value={channel[key] ?? ''}
                onChange={({ target }) => put({ [key]: target.value === '' ? null : Number(target.value) })}
              />
            )}
          </Field>
        ))}
        <fieldset className="flex flex-wrap gap-x-3">
          <legend className="text-[13px] font-medium">Its own signs cover, in %</legend>
          {COVERED.map(([key, words]) => (
            <Field key={key} label={words}>
              {(control) => (
                <input
                  {...control}
                  type="number"
                  min={0}
                  max={40}
                  className="field w-20"
                  value={channel[key] ?? 0}
                  onChange={({ target }) => put({ [key]: Number(target.value) })}
                />
              )}
            </Field>
          ))}
        </fieldset>
      </div>
    </details>
  );
}
