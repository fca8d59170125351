import { plainToInstance } from 'class-transformer';
import { validateSync } from 'class-validator';
import {
  AcceptRequestBody,
  ContentBody,
  MarkOutBody,
  MovePlacementBody,
  PROBLEMS,
  RoomDecisionBody,
  SendPacketBody,
  SignInBody,
} from './index';

const ID = '6f9619ff-8b86-4d01-b42d-00cf4fc964ff';

/** The paths that a body is refused for. */
function refused<T extends object>(type: new () => T, body: object): string[] {
  const errors = validateSync(plainToInstance(type, body), { whitelist: true, forbidNonWhitelisted: true });
  const paths = (list: typeof errors, prefix = ''): string[] =>
    list.flatMap((error) => [
      ...(error.constraints ? [`${prefix}${error.property}`] : []),
      ...paths(error.children ?? [], `${prefix}${error.property}.`),
    ]);
  return paths(errors);
}

describe('the contract', () => {
  it('takes what is right', () => {
    expect(refused(SignInBody, { email: 'a@b.test', password: 'x' })).toEqual([]);
    expect(refused(AcceptRequestBody, { title: 'T', routeId: ID, pillarId: null, channelIds: [ID], wishOn: null })).toEqual([]);
    expect(refused(MovePlacementBody, { on: '2027-03-16', at: '08:00' })).toEqual([]);
    expect(refused(MovePlacementBody, { on: null })).toEqual([]);
    expect(refused(MarkOutBody, { address: 'https://a.test/1' })).toEqual([]);
  });

  it('names each field that is wrong, nested ones by their path', () => {
    expect(refused(SignInBody, { email: 'no', password: 7 })).toEqual(['email', 'password']);
    expect(refused(AcceptRequestBody, { title: '', routeId: 'x', channelIds: [ID, ID], wishOn: 'soon' })).toEqual([
      'title',
      'routeId',
      'channelIds',
      'wishOn',
    ]);
    expect(refused(MovePlacementBody, { on: '16.3.2027', at: '25:00' })).toEqual(['on', 'at']);
    expect(refused(SendPacketBody, { title: 'T', pieceIds: [], dueOn: '2027-03-16' })).toEqual(['pieceIds']);
    expect(refused(RoomDecisionBody, { packetId: ID, pieceId: ID, versionId: ID, verdict: 'perhaps', things: [] })).toEqual(['verdict']);
    expect(
      refused(ContentBody, {
        shared: { copy: 'x', media: [{ assetId: 'no', alt: '' }], disclosure: '' },
        channels: [{ channelId: ID, copy: 1, tags: ['a'], firstComment: '', link: '' }],
      }),
    ).toEqual(['shared.media.0.assetId', 'channels.0.copy']);
  });

  it('refuses fields that it does not name, and addresses that run', () => {
    expect(refused(SignInBody, { email: 'a@b.test', password: 'x', role: 'lead' })).toEqual(['role']);
    expect(refused(MarkOutBody, { address: 'javascript:alert(1)' })).toEqual(['address']);
  });

  it('gives every problem a stable code and a refusal’s status', () => {
    for (const [code, { status, title }] of Object.entries(PROBLEMS)) {
      expect(code).toMatch(/^[a-z]+(_[a-z]+)*\.[a-z_]+$/);
      expect(status).toBeGreaterThanOrEqual(400);
      if (status >= 500) expect([503, 507]).toContain(status); // away for a moment, no room: nobody's fault but ours
      expect(title).not.toMatch(/[.!]$/);
    }
  });
});
