import Bowser from 'bowser';
import type { DeviceShape } from '@zesting/contract';
import type { App } from '../../platform/app.js';

/** What stands for a session outside: whoever knows a session's own id is signed in. */
const DEVICE = "left(encode(sha256(convert_to(sid, 'UTF8')), 'hex'), 32)::uuid";
/** So often it is written down that a session is in use. */
const SEEN_EVERY = '5 minutes';

/** The browsers a person is signed in with, the newest first. */
export async function devicesOf(app: App, personId: string, sessionId: string): Promise<DeviceShape[]> {
  const rows = await app.read<Omit<DeviceShape, 'program'> & { agent: string }>(
    `select ${DEVICE} as id, coalesce(sess ->> 'agent', '') as agent, coalesce(sess ->> 'address', '') as address,
       coalesce(sess ->> 'signedInAt', '') as "signedInAt", seen_at as "seenAt", sess -> 'cookie' ->> 'expires' as "endsAt", sid = $2 as "isThis"
     from sessions where sess ->> 'personId' = $1 and expire >= now() order by sid = $2 desc, sess ->> 'signedInAt' desc nulls last, sid`,
    [personId, sessionId],
  );
  return rows.map(({ agent, ...row }) => ({ ...row, program: programOf(agent) }));
}

/** What a browser says of itself, in a few words. */
export function programOf(agent: string): string {
  if (agent === '') return '';
  const { browser, os } = Bowser.parse(agent);
  return [browser.name, os.name].filter(Boolean).join(' on ');
}

/** Ends one session of a person. @returns whether there was one */
export async function endDevice(app: App, personId: string, deviceId: string): Promise<boolean> {
  const ended = await app.read(
    `with gone as (delete from sessions where sess ->> 'personId' = $1 and ${DEVICE} = $2 returning 1) select * from gone`,
    [personId, deviceId],
  );
  return ended.length > 0;
}

/** Ends every session of a person but one. */
export async function endOtherDevices(app: App, personId: string, sessionId: string): Promise<void> {
  await app.read("delete from sessions where sess ->> 'personId' = $1 and sid <> $2", [personId, sessionId]);
}

/** Writes down that a session is in use, now and then. */
export async function seen(app: App, sessionId: string): Promise<void> {
  await app.read(
    `update sessions set seen_at = $2 where sid = $1 and (seen_at is null or seen_at not between $2::timestamptz - interval '${SEEN_EVERY}' and $2)`,
    [sessionId, app.clock.now()],
  );
}
