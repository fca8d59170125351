import { plainLine } from './spread-line.js';
import type { Things } from './things.js';

/** What a client has that a body can name, beside what paths name. */
export interface Named extends Things {
  readonly channelId: string;
  readonly freeChannelId: string;
  readonly pillarId: string;
  readonly readyId: string;
  /** a piece that nothing was done to, and its last step */
  readonly openId: string;
  readonly openStepId: string;
  /** one that somebody of the agency does */
  readonly makeStepId: string;
  readonly placedId: string;
  readonly email: string;
  readonly versionId: string;
  /** requests that nobody has decided, for what can be done to one once */
  readonly mergedId: string;
  readonly attachedId: string;
  /** another idea than the one that paths name, and a file of that one */
  readonly otherIdeaId: string;
  readonly ideaFileId: string;
  /** a file that nothing uses yet */
  readonly looseId: string;
}

export interface Case {
  /** by whom it is called; the manager unless told */
  readonly by?: 'contact' | 'receipt';
  /** the ids in the body that it tries */
  readonly ids: string;
  /** what is sent: everything is of the own client but what is taken from `named` */
  readonly body: (named: Named, own: Named) => object;
  /** what If-Match must say: the version of a thing of the own client */
  readonly version?: string;
  /** the code it is refused with; an access code where the guard or the policy does it */
  readonly code: string | RegExp;
  /** where the thing is made anew for the call that must pass */
  readonly path?: (own: Named) => string;
}

const rule = {
  rule: 'FREQ=WEEKLY;BYDAY=TU',
  at: '09:00',
  fromOn: '2027-03-02',
  untilOn: null,
  skipsHolidays: false,
  pillarId: null,
  formatId: null,
};
/** A spread of the own client with one output, with what is tried. */
const spreadOf = (own: Named, more: object): object => ({ name: 'S', formatId: null, lines: [plainLine(own['routeId'] ?? '', more)] });
const spinOffs = (spreadId: string | undefined): object => ({
  spreadId,
  outputs: [{ lineKey: 'clip', name: '', on: null, fromSecond: null, toSecond: null }],
  known: 0,
  giveFirst: false,
});
/** What a contact asks for, at a place in a picture and in a channel's own copy. */
const things = ({ assetId, channelId }: { readonly assetId?: string | undefined; readonly channelId: string }): object[] => [
  { text: 'T', place: { kind: 'region', assetId, x: 0, y: 0, width: 100, height: 100 } },
  { text: 'T', place: { kind: 'stretch', channelId, from: 0, to: 4, words: 'Feed' } },
];
/** The same in words, as the record keeps it: who says once more what was said is taken. */
const SAID = 'picture 1, upper left: T\n“Feed”: T';
const remark = { text: 'T', audience: 'team', mentionIds: [] };
const guideline = { title: 'G', text: 'T', formatId: null, channelKind: null, skill: null };
const GOAL_VERSION = 'select version from goals where id = $1';
const goal = {
  name: 'G',
  channelId: null,
  measure: 'reading',
  unit: 'followers',
  startValue: 10,
  target: 20,
  startOn: '2027-03-01',
  byOn: '2027-12-31',
  pillarIds: [],
  steps: [],
};
const CAMPAIGN_VERSION = 'select version from campaigns where id = $1';
const campaign = { name: 'C', aim: '', fromOn: '2027-03-01', toOn: '2027-03-31', channelIds: [], markerIds: [] };
const DUTY_VERSION = 'select version from duties where id = $1';
/** A duty of the own client, with what is tried. */
const dutyOf = (own: Named, more: object, piece?: object): object => ({
  clientId: own['clientId'],
  title: 'D',
  remark: '',
  checklist: [],
  rule: 'FREQ=WEEKLY;BYDAY=TU',
  fromOn: '2027-03-02',
  untilOn: null,
  leadDays: 0,
  leadId: own['staffId'],
  secondId: null,
  minutes: 5,
  piece: piece ? { routeId: own['routeId'], channelIds: [], pillarId: null, ...piece } : null,
  ...more,
});
const piece = { routeId: '', channelIds: [] as string[] };

/** Every id in a body that names a client's thing. The manager of one client sends another's; then the own, which passes. */
export const CASES: Record<string, Case[]> = {
  'POST /api/markers': [
    {
      ids: 'clientId',
      body: ({ clientId }) => ({ clientId, kind: 'launch', name: 'L', startOn: '2027-03-20', endOn: '2027-03-20' }),
      code: 'access.refused',
    },
  ],
  'POST /api/clients/{clientId}/rhythm': [
    { ids: 'channelId', body: ({ channelId }) => ({ ...rule, channelId }), code: 'channel.unknown' },
    { ids: 'pillarId', body: ({ pillarId }, { channelId }) => ({ ...rule, channelId, pillarId }), code: 'pillar.unknown' },
    { ids: 'tagSetId', body: ({ tagSetId }, { channelId }) => ({ ...rule, channelId, tagSetId }), code: 'tag_set.unknown' },
  ],
  'PUT /api/rhythm/{ruleId}': [
    {
      ids: 'tagSetId',
      body: ({ tagSetId }, { channelId }) => ({ ...rule, channelId, tagSetId }),
      version: 'select version from rhythm_rules where id = $1',
      code: 'tag_set.unknown',
    },
    {
      ids: 'channelId',
      body: ({ channelId }) => ({ ...rule, channelId }),
      version: 'select version from rhythm_rules where id = $1',
      code: 'channel.unknown',
    },
    {
      ids: 'pillarId',
      body: ({ pillarId }, { channelId }) => ({ ...rule, channelId, pillarId }),
      version: 'select version from rhythm_rules where id = $1',
      code: 'pillar.unknown',
    },
  ],
  'PUT /api/clients/{clientId}/plan/audiences': [
    {
      ids: 'channels[].channelId',
      body: ({ channelId }) => ({ channels: [{ channelId, audience: 10, seen: 10 }], overlap: 30 }),
      code: 'channel.unknown',
    },
  ],
  'POST /api/clients/{clientId}/topics': [
    { ids: 'pillarId', body: ({ pillarId }) => ({ pillarId, parentId: null, names: ['T'] }), code: 'pillar.unknown' },
    {
      ids: 'parentId',
      body: (named, { pillarId }) => ({ pillarId, parentId: named['topicId'], names: ['S'] }),
      code: 'topic.unknown',
    },
  ],
  'POST /api/clients/{clientId}/interviews': (['ideaId', 'pieceId', 'contactId'] as const).map((ids) => ({
    ids,
    body: (named) => ({ title: 'T', questions: ['Q'], contactId: null, dueOn: null, [ids]: named[ids] }),
    code: `${ids.slice(0, -2)}.unknown`,
  })),
  'POST /api/observances': [
    { ids: 'clientId', body: ({ clientId }) => ({ clientId, name: 'Bell Day', on: '2027-05-06', subjects: [] }), code: 'access.refused' },
  ],
  'POST /api/question-sets': [
    {
      ids: 'clientId',
      body: ({ clientId }) => ({ title: 'T', treatment: '', questions: ['Q'], clientId }),
      code: 'access.refused',
    },
  ],
  'POST /api/ideas/{ideaId}/combine': [
    {
      ids: 'ideaIds',
      body: ({ otherIdeaId }) => ({ ideaIds: [otherIdeaId] }),
      code: 'idea.unknown',
    },
  ],
  'POST /api/ideas/{ideaId}/notes': [
    {
      ids: 'assetIds',
      body: ({ ideaFileId }) => ({ kind: 'comment', text: 'T', assetIds: [ideaFileId], mentionIds: [] }),
      code: 'file.unknown',
    },
  ],
  'PUT /api/ideas/{ideaId}/subject': [{ ids: 'topicId', body: (named) => ({ topicId: named['topicId'] }), code: 'topic.unknown' }],
  'PUT /api/pieces/{pieceId}/subject': [{ ids: 'topicId', body: (named) => ({ topicId: named['topicId'] }), code: 'topic.unknown' }],
  'POST /api/clients/{clientId}/goals': [
    { ids: 'channelId', body: ({ channelId }) => ({ ...goal, channelId }), code: 'channel.unknown' },
    { ids: 'pillarIds', body: ({ pillarId }) => ({ ...goal, pillarIds: [pillarId] }), code: 'pillar.unknown' },
  ],
  'PUT /api/goals/{goalId}': [
    { ids: 'channelId', body: ({ channelId }) => ({ ...goal, channelId }), version: GOAL_VERSION, code: 'channel.unknown' },
    { ids: 'pillarIds', body: ({ pillarId }) => ({ ...goal, pillarIds: [pillarId] }), version: GOAL_VERSION, code: 'pillar.unknown' },
  ],
  'POST /api/clients/{clientId}/campaigns': [
    { ids: 'channelIds', body: ({ channelId }) => ({ ...campaign, channelIds: [channelId] }), code: 'channel.unknown' },
    { ids: 'markerIds', body: (named) => ({ ...campaign, markerIds: [named['shootId']] }), code: 'campaign.marker_unknown' },
  ],
  'PUT /api/campaigns/{campaignId}': [
    {
      ids: 'channelIds',
      body: ({ channelId }) => ({ ...campaign, channelIds: [channelId] }),
      version: CAMPAIGN_VERSION,
      code: 'channel.unknown',
    },
    {
      ids: 'markerIds',
      body: (named) => ({ ...campaign, markerIds: [named['shootId']] }),
      version: CAMPAIGN_VERSION,
      code: 'campaign.marker_unknown',
    },
  ],
  'PUT /api/pieces/{pieceId}/campaign': [
    { ids: 'campaignId', body: (named) => ({ campaignId: named['campaignId'] }), code: 'campaign.unknown' },
  ],
  'POST /api/duties': [
    { ids: 'clientId', body: ({ clientId }, own) => dutyOf(own, { clientId }), code: 'access.refused' },
    { ids: 'piece.channelIds', body: ({ channelId }, own) => dutyOf(own, {}, { channelIds: [channelId] }), code: 'channel.unknown' },
    { ids: 'piece.pillarId', body: ({ pillarId }, own) => dutyOf(own, {}, { pillarId }), code: 'pillar.unknown' },
  ],
  'PUT /api/duties/{dutyId}': [
    { ids: 'clientId', body: ({ clientId }, own) => dutyOf(own, { clientId }), version: DUTY_VERSION, code: 'duty.client_fixed' },
    {
      ids: 'piece.channelIds',
      body: ({ channelId }, own) => dutyOf(own, {}, { channelIds: [channelId] }),
      version: DUTY_VERSION,
      code: 'channel.unknown',
    },
    { ids: 'piece.pillarId', body: ({ pillarId }, own) => dutyOf(own, {}, { pillarId }), version: DUTY_VERSION, code: 'pillar.unknown' },
  ],
  'PUT /api/markers/{markerId}': [
    {
      ids: 'clientId',
      body: ({ clientId }) => ({ clientId, kind: 'launch', name: 'L', startOn: '2027-03-20', endOn: '2027-03-20' }),
      version: 'select version from markers where id = $1',
      code: 'marker.client_fixed',
    },
  ],
  'PUT /api/markers/{markerId}/production': [
    {
      ids: 'pieceIds',
      body: (named) => ({ capacity: 3, skill: null, place: '', pieceIds: [named['pieceId']] }),
      path: ({ shootId }) => `/api/markers/${shootId}/production`,
      version: 'select 0 as version where $1::uuid is not null',
      code: 'piece.unknown',
    },
  ],
  'POST /api/markers/{markerId}/run-up': [
    {
      ids: 'channelId',
      body: ({ channelId }, own) => ({ offsetDays: 0, title: 'T', channelId, routeId: own['routeId'] }),
      code: 'channel.unknown',
    },
  ],
  'POST /api/ideas': [
    { ids: 'clientId', body: ({ clientId }) => ({ title: 'I', clientId }), code: 'access.refused' },
    { ids: 'pillarId', body: ({ pillarId }, { clientId }) => ({ title: 'I', clientId, pillarId }), code: 'pillar.unknown' },
    { ids: 'channelId', body: ({ channelId }, { clientId }) => ({ title: 'I', clientId, channelId }), code: 'channel.unknown' },
  ],
  'PATCH /api/ideas/{ideaId}': [
    {
      ids: 'clientId',
      body: ({ clientId }) => ({ clientId }),
      version: 'select version from ideas where id = $1',
      code: 'idea.has_client',
    },
    {
      ids: 'pillarId',
      body: ({ pillarId }) => ({ pillarId }),
      version: 'select version from ideas where id = $1',
      code: 'pillar.unknown',
    },
    {
      ids: 'channelId',
      body: ({ channelId }) => ({ channelId }),
      version: 'select version from ideas where id = $1',
      code: 'channel.unknown',
    },
  ],
  'PATCH /api/clients/{clientId}': [
    {
      ids: 'contacts[].id',
      body: ({ contactId }, own) => ({
        contacts: [{ id: contactId, name: 'Contact', email: own.email, canAsk: true, canView: true, canSignOff: true, weight: 1 }],
      }),
      version: 'select version from clients where id = $1',
      code: /unknown/,
    },
    {
      ids: 'channels[].id',
      body: (named) => ({
        channels: [named.channelId, named.freeChannelId].map((id, n) => ({
          id,
          kind: 'photo_feed',
          name: `Feed ${n}`,
          ratio: '1:1',
          copyLimit: null,
          tagLimit: null,
          mediaLimit: null,
          leadDays: 0,
          usualTime: null,
        })),
      }),
      version: 'select version from clients where id = $1',
      code: /unknown/,
    },
    {
      ids: 'pillars[].id',
      body: ({ pillarId }) => ({ pillars: [{ id: pillarId, name: 'P', share: 10 }] }),
      version: 'select version from clients where id = $1',
      code: /unknown/,
    },
    {
      ids: 'brand.logos',
      body: ({ assetId }) => ({ brand: { voice: '', palette: [], logos: [assetId], wordsToUse: [], wordsNever: [], disclosure: '' } }),
      version: 'select version from clients where id = $1',
      code: 'file.unknown',
    },
    {
      ids: 'policy.contactIds',
      body: ({ contactId }) => ({ policy: { kind: 'named', contactIds: [contactId] } }),
      version: 'select version from clients where id = $1',
      code: /policy|unknown|contact/,
    },
  ],
  'POST /api/clients/{clientId}/links': [
    { ids: 'id', body: ({ form }) => ({ kind: 'form', id: form, change: 'renew' }), code: /access|link|unknown/ },
  ],
  'POST /api/pieces/{pieceId}/material': [
    { ids: 'assetId', body: ({ assetId }) => ({ sort: 'original', label: '', assetId }), code: 'file.unknown' },
  ],
  'POST /api/pieces/{pieceId}/remarks': [
    {
      ids: 'place.channelId',
      body: ({ channelId }) => ({ ...remark, place: { kind: 'stretch', channelId, from: 0, to: 4, words: 'Feed' } }),
      code: 'remark.place_unknown',
    },
    {
      ids: 'place.assetId',
      body: ({ assetId }) => ({ ...remark, place: { kind: 'region', assetId, x: 0, y: 0, width: 100, height: 100 } }),
      code: 'remark.place_unknown',
    },
  ],
  'POST /api/forms': [
    { ids: 'clientIds', body: ({ clientId }) => ({ title: 'F', clientIds: [clientId] }), code: 'access.not_found' },
    { ids: 'copyOf', body: ({ formId }) => ({ title: 'F', clientIds: [], copyOf: formId }), code: 'access.not_found' },
  ],
  'POST /api/forms/{formId}/links': [
    { ids: 'clientId', body: ({ clientId }) => ({ clientId, label: 'L', origins: [] }), code: 'access.not_found' },
  ],
  'PUT /api/forms/{formId}/clients': [{ ids: 'clientIds', body: ({ clientId }) => ({ clientIds: [clientId] }), code: 'access.not_found' }],
  'POST /api/requests/{requestId}/merge': [
    {
      ids: 'intoId',
      body: ({ requestId }) => ({ intoId: requestId }),
      code: 'request.unknown',
      path: ({ mergedId }) => `/api/requests/${mergedId}/merge`,
    },
  ],
  'POST /api/requests/{requestId}/attach': [
    {
      ids: 'pieceId',
      body: ({ pieceId }) => ({ pieceId }),
      code: 'piece.unknown',
      path: ({ attachedId }) => `/api/requests/${attachedId}/attach`,
    },
  ],
  'POST /api/receipts/{linkId}/messages': [
    { ids: 'assetIds', by: 'receipt', body: ({ looseId }) => ({ text: 'T', assetIds: [looseId] }), code: 'file.unknown' },
  ],
  'POST /api/requests/taken-down/{clientId}': [
    { ids: 'formId', body: ({ formId }) => ({ formId, name: 'N', email: null, answers: { about: 'A' } }), code: 'form.unknown' },
  ],
  'POST /api/clients/{clientId}/table': [
    {
      ids: 'formId',
      body: ({ formId }) => ({ formId, columns: ['field:about'], rows: [{ cells: ['A'] }], askedBy: 'N' }),
      code: 'form.unknown',
    },
  ],
  'POST /api/requests/{requestId}/accept': [
    {
      ids: 'channelIds',
      body: ({ channelId }, own) => ({ ...piece, routeId: own['routeId'], title: 'T', channelIds: [channelId] }),
      code: 'channel.unknown',
    },
    {
      ids: 'pillarId',
      body: ({ pillarId }, own) => ({ ...piece, routeId: own['routeId'], title: 'T', pillarId, further: true }),
      code: 'pillar.unknown',
    },
    {
      ids: 'also[].channelIds',
      body: ({ channelId }, own) => ({
        ...piece,
        routeId: own['routeId'],
        title: 'T',
        further: true,
        also: [{ ...piece, routeId: own['routeId'], title: 'U', channelIds: [channelId] }],
      }),
      code: 'channel.unknown',
    },
    {
      ids: 'also[].pillarId',
      body: ({ pillarId }, own) => ({
        ...piece,
        routeId: own['routeId'],
        title: 'T',
        further: true,
        also: [{ ...piece, routeId: own['routeId'], title: 'U', pillarId }],
      }),
      code: 'pillar.unknown',
    },
  ],
  'POST /api/clients/{clientId}/pieces': [
    {
      ids: 'channelIds',
      body: ({ channelId }, own) => ({ ...piece, routeId: own['routeId'], channelIds: [channelId], isPencilled: false }),
      code: 'channel.unknown',
    },
    {
      ids: 'pillarId',
      body: ({ pillarId }, own) => ({ ...piece, routeId: own['routeId'], pillarId, isPencilled: false }),
      code: 'pillar.unknown',
    },
    {
      ids: 'fromId',
      body: ({ pieceId }, own) => ({ ...piece, routeId: own['routeId'], fromId: pieceId, isPencilled: false }),
      code: 'piece.unknown',
    },
  ],
  'PATCH /api/pieces/{pieceId}': [
    {
      ids: 'pillarId',
      body: ({ pillarId }) => ({ pillarId }),
      version: 'select version from pieces where id = $1',
      code: 'pillar.unknown',
    },
  ],
  'PUT /api/pieces/{pieceId}/content': [
    {
      ids: 'shared.media[].assetId',
      body: ({ assetId }) => ({ shared: { copy: 'C', disclosure: '', media: [{ assetId, alt: '' }] }, channels: [] }),
      version: 'select content_version as version from pieces where id = $1',
      code: 'file.unknown',
    },
    {
      ids: 'channels[].channelId',
      body: ({ channelId }) => ({
        shared: { copy: 'C', disclosure: '', media: [] },
        channels: [{ channelId, copy: '', tags: [], firstComment: '', link: '' }],
      }),
      version: 'select content_version as version from pieces where id = $1',
      code: 'channel.unknown',
    },
  ],
  'POST /api/pieces/{pieceId}/placements': [
    { ids: 'channelId', body: ({ freeChannelId }) => ({ channelId: freeChannelId }), code: 'channel.unknown' },
  ],
  'POST /api/placements/{placementId}/swap': [
    { ids: 'withId', body: ({ placedId }) => ({ withId: placedId }), code: /access\.not_found|placement\.other_client/ },
  ],
  'POST /api/placements/{placementId}/duplicate': [
    { ids: 'channelId', body: ({ channelId }) => ({ channelId, on: '2027-04-20' }), code: 'channel.unknown' },
  ],
  'POST /api/staffing/outcome': [
    {
      ids: 'gives[].stepId',
      body: ({ makeStepId: stepId }, own) => ({ gives: [{ stepId, personId: own['personId'], version: 1 }] }),
      code: /access\.not_found/,
    },
  ],
  'POST /api/staffing/gives': [
    {
      ids: 'gives[].stepId',
      body: ({ makeStepId: stepId }, own) => ({ gives: [{ stepId, personId: own['personId'], version: 1 }] }),
      code: /access\.not_found/,
    },
  ],
  'POST /api/pieces/{pieceId}/path': [
    {
      ids: 'changes[].stepId',
      path: ({ openId }) => `/api/pieces/${openId}/path`,
      body: ({ openStepId: stepId }) => ({ changes: [{ kind: 'retime', stepId, spanDays: 3, effortMinutes: 0 }] }),
      code: 'step.not_on_path',
    },
  ],
  'POST /api/pieces/{pieceId}/path/preview': [
    {
      ids: 'changes[].stepId',
      path: ({ openId }) => `/api/pieces/${openId}/path/preview`,
      body: ({ openStepId: stepId }) => ({ changes: [{ kind: 'retime', stepId, spanDays: 4, effortMinutes: 0 }] }),
      code: 'step.not_on_path',
    },
  ],
  'POST /api/clients/{clientId}/spreads': [
    ...(['channelId', 'guidelineId'] as const).map((id): Case => ({
      ids: `lines[].${id}`,
      body: (named, own) => spreadOf(own, { [id]: named[id] }),
      code: /channel\.unknown|guideline\.unknown/,
    })),
  ],
  'PUT /api/spreads/{spreadId}': [
    ...(['channelId', 'guidelineId'] as const).map((id): Case => ({
      ids: `lines[].${id}`,
      body: (named, own) => spreadOf(own, { [id]: named[id] }),
      version: 'select version from spreads where id = $1',
      code: /channel\.unknown|guideline\.unknown/,
    })),
  ],
  'POST /api/pieces/{pieceId}/spin-offs': [{ ids: 'spreadId', body: ({ spreadId }) => spinOffs(spreadId), code: 'spread.unknown' }],
  'POST /api/pieces/{pieceId}/spin-offs/preview': [{ ids: 'spreadId', body: ({ spreadId }) => spinOffs(spreadId), code: 'spread.unknown' }],
  'POST /api/guidelines': [{ ids: 'clientId', body: ({ clientId }) => ({ ...guideline, clientId }), code: 'access.not_found' }],
  'POST /api/clients/{clientId}/kept-files': [
    {
      ids: 'assetId',
      body: ({ unkeptId }) => ({ assetId: unkeptId, kind: 'other', title: 'K', about: '', renewBy: null }),
      code: 'file.unknown',
    },
  ],
  'PUT /api/kept-files/{keptFileId}': [
    {
      ids: 'assetId',
      body: ({ otherUnkeptId }) => ({ assetId: otherUnkeptId, kind: 'other', title: 'K', about: '', renewBy: null }),
      version: 'select version from kept_files where id = $1',
      code: 'file.unknown',
    },
  ],
  'POST /api/clients/{clientId}/phrases': [
    { ids: 'pillarId', body: ({ pillarId }) => ({ kind: 'opening', text: 'P', pillarId }), code: 'pillar.unknown' },
  ],
  'PUT /api/phrases/{phraseId}': [
    {
      ids: 'pillarId',
      body: ({ pillarId }) => ({ kind: 'opening', text: 'P', pillarId }),
      version: 'select version from phrases where id = $1',
      code: 'pillar.unknown',
    },
  ],
  'POST /api/pieces/{pieceId}/phrases': [{ ids: 'phraseId', body: ({ phraseId }) => ({ phraseId }), code: 'phrase.unknown' }],
  'POST /api/clients/{clientId}/tag-sets': [
    { ids: 'pillarId', body: ({ pillarId }) => ({ name: 'T', tags: ['a'], weekday: null, pillarId }), code: 'pillar.unknown' },
  ],
  'PUT /api/tag-sets/{tagSetId}': [
    {
      ids: 'pillarId',
      body: ({ pillarId }) => ({ name: 'T', tags: ['a'], weekday: null, pillarId }),
      version: 'select version from tag_sets where id = $1',
      code: 'pillar.unknown',
    },
  ],
  'PUT /api/guidelines/{guidelineId}': [
    {
      ids: 'clientId',
      body: ({ clientId }) => ({ ...guideline, clientId }),
      version: 'select version from guidelines where id = $1',
      code: 'access.not_found',
    },
  ],
  'POST /api/pieces/{pieceId}/obstacles': [
    {
      ids: 'stepId',
      path: ({ openId }) => `/api/pieces/${openId}/obstacles`,
      body: ({ openStepId: stepId }) => ({ words: 'W', whose: 'client', stepId }),
      code: 'step.not_on_path',
    },
  ],
  'POST /api/pieces/{pieceId}/notes': [
    { ids: 'assetIds', body: ({ assetId }) => ({ kind: 'comment', text: 'T', assetIds: [assetId], mentionIds: [] }), code: /unknown/ },
  ],
  'POST /api/clients/{clientId}/packets': [
    {
      ids: 'pieceIds',
      body: ({ readyId }) => ({ title: 'P', message: '', pieceIds: [readyId], dueOn: '2027-03-10' }),
      code: /access\.not_found|piece\.other_client/,
    },
  ],
  'POST /api/packets/{packetId}/decisions': [
    {
      ids: 'contactId',
      body: ({ contactId }, own) => ({ contactId, pieceId: own['pieceId'], verdict: 'approve', remark: SAID, how: 'by telephone' }),
      code: /./,
    },
    {
      ids: 'pieceId',
      body: ({ pieceId }, own) => ({ contactId: own['contactId'], pieceId, verdict: 'approve', remark: SAID, how: 'by telephone' }),
      code: /./,
    },
  ],
  'POST /api/room/{linkId}/decisions': [
    {
      by: 'contact',
      ids: 'packetId',
      body: ({ packetId }, own) => ({
        packetId,
        pieceId: own['pieceId'],
        versionId: own.versionId,
        verdict: 'approve',
        things: things(own),
      }),
      code: /./,
    },
    {
      by: 'contact',
      ids: 'pieceId',
      body: ({ pieceId }, own) => ({
        packetId: own['packetId'],
        pieceId,
        versionId: own.versionId,
        verdict: 'approve',
        things: things(own),
      }),
      code: /./,
    },
    ...(['assetId', 'channelId'] as const).map((id): Case => ({
      by: 'contact',
      ids: `things[].place.${id}`,
      body: (named, own) => ({
        packetId: own['packetId'],
        pieceId: own['pieceId'],
        versionId: own.versionId,
        verdict: 'approve',
        things: things({ assetId: own['assetId'], channelId: own.channelId, [id]: named[id] }),
      }),
      code: 'remark.place_unknown',
    })),
    {
      by: 'contact',
      ids: 'versionId',
      body: ({ versionId }, own) => ({
        packetId: own['packetId'],
        pieceId: own['pieceId'],
        versionId,
        verdict: 'approve',
        things: things(own),
      }),
      code: /./,
    },
  ],
};

/** Ids in bodies that name what belongs to no client: people, routes, formats, skills; or steps of the piece in the path. */
export const OF_THE_AGENCY = [
  /^PATCH \/api\/agency /,
  /duties.* (leadId|secondId)/,
  /follow-ups items\[\]\.(key|personId)/, // a line of that list, and people of the agency: tested there
  /entering itemKey/, // a line of the placement's own channel, or nothing
  /allowance\.formats/,
  /formatId/,
  /markerKinds|kindId/, // the agency's own list
  // filling a slot answers line by line, and is tested there: nothing of another client's is ever filled in
  /^POST \/api\/clients\/\{clientId\}\/plan slots\[\]\.(ruleId|ideaId|placementId|againId)/,
  // copies and lines of the sheet are changed piece by piece, and each is answered: tested there
  /^PUT \/api\/pieces\/sheet changes\[\]\.(pieceId|pillarId|leadId|doer\.(stepId|personId))/,
  /^PUT \/api\/clients\/\{clientId\}\/copy changes\[\]\.(pieceId|channelId)/,
  /managerIds|policy\.personId|mentionIds|routeId/,
  /^POST \/api\/clients managerIds/,
  /covers coverId/,
  /^POST \/api\/routes\/\{routeId\}\/along /, // a lead's alone
  /^POST \/api\/people\/\{personId\}\/(give-steps|duties\/give|away) /, // a lead's alone
  /doer personId/,
  /steps\/\{stepId\}\/with personId/, // people of the agency
  /staffing\/(gives|outcome) gives\[\]\.personId/,
  // steps that the client brings something for, and files that a contact brings: tested there
  /steps\/\{stepId\}\/asking (contactId|alsoIds)/,
  /deliveries\/\{deliveryId\}\/material assetId/,
  /obstacles(\/{obstacleId})? personId/, // whoever sees the piece, and nobody else: tested there
  /owner ownerId/,
  /clients\/\{clientId\}\/team(\/lead)? (personId|wasId)/, // people of the agency
  /leadId/, // the same
  /spreads.* lines\[\]\.doers\[\]\.personId/, // the same
  /hand-back stepIds/,
  /path(\/preview)? changes\[\]\.personId/,
  /^PATCH \/api\/people\/\{personId\} clients\[\]\.clientId/, // a lead's alone
];
