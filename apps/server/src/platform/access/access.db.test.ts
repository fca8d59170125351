import { Caller, callerAs, callerByLink, makeScene, type Scene } from '../../../test-support/scene.js';
import { Door } from '../../../test-support/door.js';
import { makeThings, type Things } from '../../../test-support/things.js';

type Who = 'lead' | 'manager' | 'staff' | 'freelance' | 'contact' | 'form' | 'receipt' | 'invited' | 'resetting' | 'stranger';
const EVERYONE: Who[] = ['lead', 'manager', 'staff', 'freelance', 'contact', 'form', 'receipt', 'invited', 'resetting', 'stranger'];
const managers = 'lead manager';
const makers = 'lead manager staff freelance';
const all = EVERYONE.join(' ');

/** The whole table: who may call what, for things of their own client. Written out here, not read from the policies. */
const TABLE: Record<string, string> = {
  'POST /api/session': all,
  'GET /api/session': all,
  'DELETE /api/session': makers,
  'GET /api/session/devices': makers,
  'DELETE /api/session/devices': makers,
  'DELETE /api/session/devices/{deviceId}': '', // one's own alone: of others' there is nothing here
  'POST /api/ask/open': all,
  'POST /api/receipts/open': all,
  'POST /api/room/open': all,
  'GET /api/health': all,
  'GET /api/health/ready': all,
  'PUT /api/clock': all,
  'GET /api/agency': managers,
  'PATCH /api/agency': 'lead',
  'GET /api/agency/mark': all,
  'PUT /api/agency/mark': 'lead',
  'DELETE /api/agency/mark': 'lead',
  'POST /api/agency/stock': 'lead',
  'GET /api/agency/beginning': 'lead',
  'POST /api/agency/beginning': 'lead',
  'POST /api/agency/trial-mail': 'lead',
  'GET /api/agency/demo': 'lead',
  'POST /api/agency/leave-demo': 'lead',
  'GET /api/start': all,
  'POST /api/start': all,
  'POST /api/clients/{clientId}/form': managers,
  'GET /api/clients': makers,
  'GET /api/clients/rows': managers,
  'GET /api/regions': all,
  'POST /api/clients': 'lead',
  'GET /api/clients/{clientId}': managers,
  'PATCH /api/clients/{clientId}': managers,
  'GET /api/clients/{clientId}/team': managers,
  'PUT /api/clients/{clientId}/team': managers,
  'POST /api/clients/{clientId}/archive': 'lead',
  'GET /api/clients/{clientId}/brand': makers,
  'GET /api/clients/{clientId}/brand/files/{assetId}': makers,
  'POST /api/clients/{clientId}/files': managers,
  'GET /api/clients/{clientId}/activity': managers,
  'GET /api/people': managers,
  'POST /api/people': 'lead',
  'GET /api/people/{personId}': 'lead manager staff',
  'PATCH /api/people/{personId}': 'lead',
  'POST /api/people/{personId}/invite': 'lead',
  'DELETE /api/people/{personId}/invite': 'lead',
  'POST /api/people/{personId}/leave': 'lead',
  'POST /api/people/{personId}/come-back': 'lead',
  'POST /api/people/{personId}/give-steps': 'lead',
  'POST /api/people/{personId}/away/preview': 'lead',
  'POST /api/people/{personId}/away': 'lead',
  'POST /api/people/{personId}/time-off': 'lead staff',
  'DELETE /api/people/{personId}/time-off/{timeOffId}': 'lead staff',
  'POST /api/people/{personId}/time-off/read-file': 'lead staff',
  'POST /api/people/{personId}/time-off/import': 'lead staff',
  'PUT /api/people/{personId}/round-up': 'staff',
  'POST /api/people/{personId}/covers': 'lead',
  'DELETE /api/people/{personId}/covers/{coverId}': 'lead',
  'POST /api/invites/open': all,
  'POST /api/resets': all,
  'POST /api/resets/open': all,
  'GET /api/resets/{linkId}': 'resetting',
  'POST /api/resets/{linkId}/password': 'resetting',
  'GET /api/invites/{linkId}': 'invited',
  'POST /api/invites/{linkId}/password': 'invited',
  'GET /api/days-off': makers,
  'GET /api/load': managers,
  'GET /api/load/{personId}': managers,
  'GET /api/routes/whole': managers,
  'POST /api/routes': 'lead',
  'PATCH /api/routes/{routeId}': 'lead',
  'POST /api/routes/{routeId}/archive': 'lead',
  'GET /api/clients/{clientId}/links': managers,
  'POST /api/clients/{clientId}/links': managers,
  'GET /api/clients/{clientId}/rooms/{contactId}': managers,
  'GET /api/clients/{clientId}/ready': managers,
  'POST /api/clients/{clientId}/packets': managers,
  'GET /api/routes': managers,
  'GET /api/requests': managers,
  'GET /api/requests/{requestId}': managers,
  'POST /api/requests/{requestId}/read': managers,
  'GET /api/requests/{requestId}/feasibility/{routeId}': managers,
  'POST /api/requests/{requestId}/accept': managers,
  'POST /api/requests/{requestId}/decline': managers,
  'POST /api/requests/{requestId}/idea': managers,
  'POST /api/clients/{clientId}/dates/read': managers,
  'POST /api/clients/{clientId}/dates': managers,
  'GET /api/requests/taken-down/{clientId}': managers,
  'POST /api/requests/taken-down/{clientId}': managers,
  'GET /api/requests/{requestId}/verdict': managers,
  'POST /api/requests/{requestId}/ask-back': managers,
  'POST /api/requests/{requestId}/merge': managers,
  'POST /api/requests/{requestId}/attach': managers,
  'PUT /api/requests/{requestId}/owner': managers,
  'POST /api/receipts/{linkId}/messages': 'receipt',
  'POST /api/receipts/{linkId}/withdraw': 'receipt',
  'POST /api/room/{linkId}/known': 'contact',
  'POST /api/receipts/{linkId}/uploads': 'receipt',
  'HEAD /api/receipts/{linkId}/uploads/{uploadId}': 'receipt',
  'PATCH /api/receipts/{linkId}/uploads/{uploadId}': 'receipt',
  'DELETE /api/receipts/{linkId}/uploads/{uploadId}': 'receipt',
  'POST /api/receipts/{linkId}/uploads/{uploadId}/file': 'receipt',
  'GET /api/forms': managers,
  'POST /api/forms': managers,
  'GET /api/forms/{formId}': managers,
  'PATCH /api/forms/{formId}': managers,
  'POST /api/forms/{formId}/publish': managers,
  'POST /api/forms/{formId}/discard': managers,
  'PUT /api/forms/{formId}/clients': managers,
  'POST /api/forms/{formId}/archive': managers,
  'GET /api/forms/{formId}/document': managers,
  'GET /api/forms/{formId}/versions/{number}': managers,
  'GET /api/forms/{formId}/tried': managers,
  'POST /api/forms/{formId}/links': managers,
  'PATCH /api/forms/{formId}/links/{linkId}': managers,
  'POST /api/forms/{formId}/links/{linkId}/change': managers,
  'GET /api/forms/{formId}/links/{linkId}/qr': managers,
  'PUT /api/formats/{formatId}/needs': managers,
  'GET /api/schemas/form.json': all,
  'POST /api/clients/{clientId}/dates/file': managers,
  'POST /api/clients/{clientId}/table/read': managers,
  'POST /api/clients/{clientId}/table': managers,
  'GET /api/mails': managers,
  'GET /api/mails/addresses': managers,
  'GET /api/mails/{mailId}/source': managers,
  'POST /api/mails/{mailId}/take': managers,
  'POST /api/mails/{mailId}/leave': managers,
  'POST /api/mails/{mailId}/wait': managers,
  'GET /api/ask/{linkId}': 'form',
  'POST /api/ask/{linkId}/earliest': 'form',
  'GET /api/ask/{linkId}/files/{assetId}': '', // what is asked with already is nobody’s there
  'POST /api/ask/{linkId}/files': 'form',
  'POST /api/ask/{linkId}/requests': 'form',
  'GET /api/receipts/{linkId}': 'receipt',
  'GET /api/desk': managers,
  'GET /api/stations': managers,
  'GET /api/pieces': 'lead manager staff',
  'GET /api/pieces/{pieceId}': makers,
  'GET /api/pieces/line': managers,
  'PUT /api/clients/{clientId}/team/lead': managers,
  'GET /api/formats/writing': managers,
  'PUT /api/formats/{formatId}/writing': managers,
  'GET /api/pieces/sheet': managers,
  'PUT /api/pieces/sheet': managers,
  'GET /api/pieces/sheet/csv': managers,
  'GET /api/pieces/sheet/xlsx': managers,
  'POST /api/pieces/{pieceId}/path': managers,
  'POST /api/pieces/{pieceId}/path/preview': managers,
  'GET /api/pieces/{pieceId}/path/helps': managers,
  'PATCH /api/pieces/{pieceId}': managers,
  'PUT /api/pieces/{pieceId}/content': makers,
  'POST /api/pieces/{pieceId}/files': makers,
  'POST /api/pieces/{pieceId}/placements': managers,
  'GET /api/files/{assetId}': makers,
  'GET /api/steps/mine': makers,
  'GET /api/steps/{stepId}/candidates': managers,
  'GET /api/steps/{stepId}/delays': managers,
  'PUT /api/steps/{stepId}/doer': managers,
  'PUT /api/steps/{stepId}/with': managers,
  'PUT /api/steps/{stepId}/checklist': managers,
  'GET /api/steps/{stepId}/chase': managers,
  'POST /api/steps/{stepId}/chase': managers,
  'PUT /api/steps/{stepId}/remaining': makers,
  'POST /api/steps/{stepId}/begin': makers,
  'PUT /api/steps/{stepId}/tick': makers,
  'POST /api/steps/{stepId}/hand-in': makers,
  'POST /api/steps/{stepId}/hand-back': makers,
  'GET /api/packets': managers,
  'GET /api/packets/{packetId}': managers,
  'POST /api/packets/{packetId}/decisions': managers,
  'POST /api/packets/{packetId}/no-answer': managers,
  'GET /api/packets/{packetId}/chase': managers,
  'POST /api/packets/{packetId}/chase': managers,
  'POST /api/pieces/{pieceId}/agency-approval': managers,
  'GET /api/pieces/{pieceId}/path/forecast': makers,
  'GET /api/pieces/{pieceId}/material': makers,
  'POST /api/pieces/{pieceId}/material': makers,
  'DELETE /api/material/{materialId}': makers,
  'POST /api/material/{materialId}/restore': makers,
  'GET /api/steps/{stepId}/asking': managers,
  'POST /api/steps/{stepId}/asking': managers,
  'POST /api/steps/{stepId}/brought': managers,
  'POST /api/room/{linkId}/deliveries/{deliveryId}/material': 'contact',
  'POST /api/room/{linkId}/uploads': 'contact',
  'HEAD /api/room/{linkId}/uploads/{uploadId}': 'contact',
  'PATCH /api/room/{linkId}/uploads/{uploadId}': 'contact',
  'DELETE /api/room/{linkId}/uploads/{uploadId}': 'contact',
  'POST /api/room/{linkId}/uploads/{uploadId}/file': 'contact',
  'DELETE /api/room/{linkId}/deliveries/{deliveryId}/material/{materialId}': 'contact',
  'POST /api/room/{linkId}/deliveries/{deliveryId}/done': 'contact',
  'GET /api/clock': makers,
  'POST /api/clock/stop': makers,
  'POST /api/steps/{stepId}/clock': makers,
  'GET /api/steps/{stepId}/hours': makers,
  'POST /api/steps/{stepId}/hours': makers,
  'DELETE /api/worked/{workedId}': makers,
  'POST /api/steps/{stepId}/accept': makers,
  'POST /api/steps/{stepId}/turn-down': makers,
  'GET /api/to-make': makers,
  'GET /api/to-make/steps': makers,
  'GET /api/clients/{clientId}/copy': managers,
  'PUT /api/clients/{clientId}/copy': managers,
  'GET /api/clients/{clientId}/copy/csv': managers,
  'GET /api/clients/{clientId}/copy/xlsx': managers,
  'GET /api/pieces/{pieceId}/remarks': makers,
  'POST /api/pieces/{pieceId}/remarks': makers,
  'PATCH /api/remarks/{remarkId}': makers,
  'DELETE /api/remarks/{remarkId}': makers,
  'POST /api/remarks/{remarkId}/replies': makers,
  'DELETE /api/replies/{replyId}': makers,
  'POST /api/room/{linkId}/remarks/{remarkId}/replies': 'contact',
  'GET /api/room/{linkId}': 'contact',
  'GET /api/room/{linkId}/files/{assetId}': 'contact',
  'POST /api/room/{linkId}/decisions': 'contact',
  'POST /api/clients/{clientId}/pieces': managers,
  'GET /api/clients/{clientId}/feasibility/{routeId}': managers,
  'GET /api/pieces/{pieceId}/notes': makers,
  'POST /api/pieces/{pieceId}/notes': makers,
  'GET /api/pieces/{pieceId}/versions': makers,
  'POST /api/pieces/{pieceId}/versions/{number}/bring-back': makers,
  'GET /api/library': 'lead manager staff',
  'GET /api/clients/{clientId}/tag-sets': managers,
  'POST /api/clients/{clientId}/tag-sets': managers,
  'PUT /api/tag-sets/{tagSetId}': managers,
  'POST /api/tag-sets/{tagSetId}/archive': managers,
  'GET /api/pieces/{pieceId}/tag-sets': makers,
  'GET /api/kept-files': 'lead manager staff',
  'POST /api/clients/{clientId}/kept-files': managers,
  'POST /api/clients/{clientId}/kept-uploads': managers,
  'HEAD /api/clients/{clientId}/kept-uploads/{uploadId}': managers,
  'PATCH /api/clients/{clientId}/kept-uploads/{uploadId}': managers,
  'DELETE /api/clients/{clientId}/kept-uploads/{uploadId}': managers,
  'POST /api/clients/{clientId}/kept-uploads/{uploadId}/file': managers,
  'PUT /api/kept-files/{keptFileId}': managers,
  'POST /api/kept-files/{keptFileId}/archive': managers,
  'GET /api/pieces/{pieceId}/kept-files': makers,
  'GET /api/pieces/{pieceId}/kept-files/{keptFileId}/picture': makers,
  'POST /api/pieces/{pieceId}/kept-files/{keptFileId}': makers,
  'GET /api/clients/{clientId}/phrases': managers,
  'POST /api/clients/{clientId}/phrases': managers,
  'PUT /api/phrases/{phraseId}': managers,
  'POST /api/phrases/{phraseId}/archive': managers,
  'GET /api/pieces/{pieceId}/links': makers,
  'POST /api/pieces/{pieceId}/drafts': makers,
  'POST /api/pieces/{pieceId}/links': makers,
  'GET /api/pieces/{pieceId}/phrases': makers,
  'POST /api/pieces/{pieceId}/phrases': makers,
  'GET /api/clients/{clientId}/spreads': managers,
  'POST /api/clients/{clientId}/spreads': managers,
  'PUT /api/spreads/{spreadId}': managers,
  'POST /api/spreads/{spreadId}/use': managers,
  'POST /api/spreads/{spreadId}/archive': managers,
  'GET /api/spreads/{spreadId}/outlook': managers,
  'GET /api/spin-offs': managers,
  'GET /api/pieces/{pieceId}/spin-offs': makers,
  'POST /api/pieces/{pieceId}/spin-offs': managers,
  'POST /api/pieces/{pieceId}/spin-offs/preview': managers,
  'POST /api/pieces/{pieceId}/spin-offs/along': managers,
  'POST /api/pieces/{pieceId}/spin-offs/along/preview': managers,
  'PUT /api/pieces/{pieceId}/spin-off': managers,
  'POST /api/pieces/{pieceId}/spin-off/facts': makers,
  'DELETE /api/pieces/{pieceId}/spin-off': managers,
  'GET /api/guidelines': managers,
  'POST /api/guidelines': managers,
  'PUT /api/guidelines/{guidelineId}': managers,
  'POST /api/guidelines/{guidelineId}/archive': managers,
  'POST /api/guidelines/{guidelineId}/pictures': managers,
  'DELETE /api/guidelines/{guidelineId}/pictures/{assetId}': managers,
  'GET /api/guidelines/{guidelineId}/pictures/{assetId}': makers,
  'GET /api/pieces/{pieceId}/guidelines': makers,
  'GET /api/obstacles': makers,
  'GET /api/pieces/{pieceId}/obstacles': makers,
  'POST /api/pieces/{pieceId}/obstacles': makers,
  'PATCH /api/obstacles/{obstacleId}': makers,
  'POST /api/obstacles/{obstacleId}/settle': makers,
  'PATCH /api/notes/{noteId}': makers,
  'DELETE /api/notes/{noteId}': makers,
  'GET /api/clients/{clientId}/mix': 'lead manager staff',
  'GET /api/calendar': 'lead manager staff',
  'PUT /api/placements/{placementId}/date': managers,
  'GET /api/going-out': 'lead manager staff',
  'GET /api/going-out/soon': 'lead manager staff',
  'GET /api/placements/{placementId}/hand-out': 'lead manager staff',
  'GET /api/pieces/{pieceId}/fits': makers,
  'GET /api/placements/{placementId}/files/{number}': 'lead manager staff',
  'PUT /api/placements/{placementId}/check': managers,
  'GET /api/follow-ups': 'lead manager staff',
  'PUT /api/follow-ups/{followUpId}': 'lead manager staff',
  'PUT /api/placements/{placementId}/entering': 'lead manager staff',
  'GET /api/clients/{clientId}/follow-up-lists': managers,
  'GET /api/clients/{clientId}/evergreen': managers,
  'GET /api/routes/{routeId}/along': 'lead',
  'POST /api/routes/{routeId}/along': 'lead',
  'GET /api/money': managers,
  'GET /api/clients/{clientId}/fee': managers,
  'PUT /api/clients/{clientId}/fee': managers,
  'GET /api/people/{personId}/rate': 'lead',
  'PUT /api/people/{personId}/rate': 'lead',
  'GET /api/staffing/proposal': managers,
  'POST /api/staffing/gives': managers,
  'POST /api/staffing/outcome': managers,
  'GET /api/pieces/{pieceId}/embargo': makers,
  'PUT /api/pieces/{pieceId}/embargo': managers,
  'DELETE /api/pieces/{pieceId}/embargo': managers,
  'GET /api/pieces/{pieceId}/evergreen': managers,
  'PUT /api/pieces/{pieceId}/evergreen': managers,
  'DELETE /api/pieces/{pieceId}/evergreen': managers,
  'PUT /api/channels/{channelId}/follow-ups': managers,
  'GET /api/sending': 'lead manager staff',
  'PUT /api/sending/stop': 'lead',
  'PUT /api/clients/{clientId}/sending/stop': managers,
  'PUT /api/channels/{channelId}/sending/stop': managers,
  'GET /api/clients/{clientId}/channel-links': managers,
  'PUT /api/channels/{channelId}/link': managers,
  'DELETE /api/channels/{channelId}/link': managers,
  'POST /api/channels/{channelId}/link/try': managers,
  'POST /api/placements/{placementId}/send': managers,
  'POST /api/placements/{placementId}/settle': managers,
  'GET /api/clients/{clientId}/pack': 'lead manager staff',
  'GET /api/clients/{clientId}/pack/zip': 'lead manager staff',
  'POST /api/placements/{placementId}/out': managers,
  'PATCH /api/placements/{placementId}/address': managers,
  'POST /api/placements/{placementId}/cancel': managers,
  'POST /api/placements/{placementId}/restore': managers,
  'POST /api/placements/{placementId}/swap': managers,
  'POST /api/placements/{placementId}/duplicate': managers,
  'GET /api/clients/{clientId}/rhythm': managers,
  'POST /api/clients/{clientId}/rhythm': managers,
  'PUT /api/rhythm/{ruleId}': managers,
  'DELETE /api/rhythm/{ruleId}': managers,
  'PUT /api/rhythm/{ruleId}/exception': managers,
  'GET /api/clients/{clientId}/plan': managers,
  'POST /api/clients/{clientId}/plan': managers,
  'GET /api/clients/{clientId}/plan/cost': managers,
  'GET /api/clients/{clientId}/plan/best': managers,
  'POST /api/clients/{clientId}/plan/copy': managers,
  'PUT /api/clients/{clientId}/plan/numbers': managers,
  'PUT /api/clients/{clientId}/plan/audiences': managers,
  'GET /api/clients/{clientId}/year': managers,
  'PUT /api/clients/{clientId}/themes': managers,
  'POST /api/clients/{clientId}/themes/swap': managers,
  'PUT /api/clients/{clientId}/theme-cycle': managers,
  'GET /api/runway': managers,
  'GET /api/slots': managers,
  'GET /api/clients/{clientId}/channels/{channelId}/look': 'lead manager staff',
  'GET /api/clients/{clientId}/observances': managers,
  'PUT /api/clients/{clientId}/observances': managers,
  'POST /api/observances': managers,
  'DELETE /api/observances/{observanceId}': managers,
  'GET /api/calendar/counts': 'lead manager staff',
  'GET /api/months-to-start': managers,
  'GET /api/clients/{clientId}/plan/frame': managers,
  'POST /api/clients/{clientId}/plan/start': managers,
  'DELETE /api/clients/{clientId}/plan/start': managers,
  'GET /api/people/{personId}/duties': 'lead',
  'POST /api/people/{personId}/duties/give': 'lead',
  'GET /api/interviews': managers,
  'GET /api/interviews/{interviewId}': managers,
  'PATCH /api/interviews/{interviewId}': managers,
  'POST /api/interviews/{interviewId}/state': managers,
  'PUT /api/questions/{questionId}/answer': managers,
  'PUT /api/room/{linkId}/questions/{questionId}/answer': 'contact',
  'POST /api/clients/{clientId}/interviews': managers,
  'GET /api/ideas/{ideaId}/interviews': managers,
  'GET /api/ideas/{ideaId}/notes': managers,
  'POST /api/ideas/{ideaId}/notes': managers,
  'POST /api/ideas/{ideaId}/combine': managers,
  'DELETE /api/ideas/{ideaId}/files/{assetId}': managers,
  'POST /api/ideas/{ideaId}/uploads': managers,
  'HEAD /api/ideas/{ideaId}/uploads/{uploadId}': managers,
  'PATCH /api/ideas/{ideaId}/uploads/{uploadId}': managers,
  'DELETE /api/ideas/{ideaId}/uploads/{uploadId}': managers,
  'POST /api/ideas/{ideaId}/uploads/{uploadId}/file': managers,
  'GET /api/pieces/{pieceId}/interviews': makers,
  'GET /api/question-sets': managers,
  'POST /api/question-sets': managers,
  'PUT /api/question-sets/{setId}': managers,
  'DELETE /api/question-sets/{setId}': managers,
  'POST /api/question-sets/{setId}/restore': managers,
  'GET /api/clients/{clientId}/topics': managers,
  'POST /api/clients/{clientId}/topics': managers,
  'PUT /api/clients/{clientId}/treatments': managers,
  'PATCH /api/topics/{topicId}': managers,
  'DELETE /api/topics/{topicId}': managers,
  'POST /api/topics/{topicId}/restore': managers,
  'POST /api/topics/{topicId}/idea': managers,
  'PUT /api/ideas/{ideaId}/subject': managers,
  'PUT /api/pieces/{pieceId}/subject': managers,
  'GET /api/clients/{clientId}/goals': managers,
  'POST /api/clients/{clientId}/goals': managers,
  'PUT /api/goals/{goalId}': managers,
  'DELETE /api/goals/{goalId}': managers,
  'POST /api/goals/{goalId}/restore': managers,
  'PUT /api/goals/{goalId}/reading': managers,
  'POST /api/clients/{clientId}/strategy': managers,
  'PUT /api/strategy/{strategyId}': managers,
  'DELETE /api/strategy/{strategyId}': managers,
  'POST /api/strategy/{strategyId}/restore': managers,
  'GET /api/views': makers,
  'POST /api/views': makers,
  'DELETE /api/views/{viewId}': 'staff',
  'GET /api/campaigns': managers,
  'GET /api/campaigns/{campaignId}': managers,
  'GET /api/campaigns/{campaignId}/move': managers,
  'POST /api/clients/{clientId}/campaigns': managers,
  'PUT /api/campaigns/{campaignId}': managers,
  'PUT /api/campaigns/{campaignId}/period': managers,
  'DELETE /api/campaigns/{campaignId}': managers,
  'POST /api/campaigns/{campaignId}/restore': managers,
  'PUT /api/pieces/{pieceId}/campaign': managers,
  'GET /api/duties': managers,
  'GET /api/duties/mine': makers,
  'POST /api/duties': managers,
  'PUT /api/duties/{dutyId}': managers,
  'DELETE /api/duties/{dutyId}': managers,
  'GET /api/duties/{dutyId}/days': managers,
  'PUT /api/duties/{dutyId}/day': makers,
  'POST /api/duties/{dutyId}/missed': makers,
  'GET /api/ideas': managers,
  'POST /api/ideas': managers,
  'GET /api/ideas/{ideaId}': managers,
  'PATCH /api/ideas/{ideaId}': managers,
  'GET /api/ideas/{ideaId}/covered': managers,
  'POST /api/ideas/{ideaId}/state': managers,
  'POST /api/markers': managers,
  'DELETE /api/markers/{markerId}': managers,
  'PUT /api/markers/{markerId}': managers,
  'GET /api/markers/{markerId}/run-up': managers,
  'GET /api/markers/{markerId}/production': managers,
  'PUT /api/markers/{markerId}/production': managers,
  'POST /api/markers/{markerId}/run-up': managers,
  'DELETE /api/run-ups/{runUpId}': managers,
  'POST /api/run-ups/{runUpId}/piece': managers,
  'POST /api/pieces/{pieceId}/uploads': makers,
  'HEAD /api/pieces/{pieceId}/uploads/{uploadId}': makers,
  'PATCH /api/pieces/{pieceId}/uploads/{uploadId}': makers,
  'DELETE /api/pieces/{pieceId}/uploads/{uploadId}': makers,
  'POST /api/pieces/{pieceId}/uploads/{uploadId}/file': makers,
  'POST /api/ask/{linkId}/uploads': 'form',
  'HEAD /api/ask/{linkId}/uploads/{uploadId}': 'form',
  'PATCH /api/ask/{linkId}/uploads/{uploadId}': 'form',
  'DELETE /api/ask/{linkId}/uploads/{uploadId}': 'form',
  'POST /api/ask/{linkId}/uploads/{uploadId}/file': 'form',
  'GET /api/live': makers,
  'GET /api/pieces/{pieceId}/finals': makers,
  'GET /api/pieces/{pieceId}/sign-off-record': makers,
  'GET /api/room/{linkId}/pieces/{pieceId}/sign-off-record': 'contact',
  'GET /api/find': makers,
  'GET /api/requests/{requestId}/activity': managers,
  'POST /api/requests/{requestId}/reopen': managers,
  'PUT /api/pieces/{pieceId}/presence/{tabId}': makers,
  'DELETE /api/pieces/{pieceId}/presence/{tabId}': makers,
  'GET /api/clients/{clientId}/mark': all,
  'GET /feeds/{secret}': all,
};

const LINK_OF: Record<string, string> = {
  forms: 'form',
  ask: 'form',
  receipts: 'receipt',
  room: 'contact',
  invites: 'invited',
  resets: 'resetting',
};

/** Things that belong to no client: who may call what for the manager’s. Routes are the agency’s. */
const OF_NO_CLIENT: Record<string, string> = {
  'GET /api/clients/{clientId}/mark': all, // a brand's logo, on every form and room of theirs
  'PUT /api/formats/{formatId}/needs': managers,
  'PUT /api/formats/{formatId}/writing': managers,
  // whoever does a duty need not have its client otherwise: whether they do is asked with what they say of it
  'PUT /api/duties/{dutyId}/day': makers,
  'POST /api/duties/{dutyId}/missed': makers,
  'DELETE /api/views/{viewId}': 'staff', // whose it is
  // of clients that one does not look after, hours and dates alone
  'GET /api/load/{personId}': managers,
  'GET /api/people/{personId}': managers,
  'PUT /api/people/{personId}/round-up': 'manager',
  'POST /api/people/{personId}/time-off': managers,
  'DELETE /api/people/{personId}/time-off/{timeOffId}': managers,
  'POST /api/people/{personId}/time-off/read-file': managers,
  'POST /api/people/{personId}/time-off/import': managers,
  'POST /api/people/{personId}/covers': managers,
  'DELETE /api/people/{personId}/covers/{coverId}': managers,
  'GET /api/invites/{linkId}': 'invited',
  'POST /api/invites/{linkId}/password': 'invited',
};

/** The path with a thing’s ids. The last lead stays whatever is asked, so leaving is asked of the lead. */
function pathFor(path: string, found: Things): string {
  return path.replace(
    /\{(\w+)\}/g,
    (_, param: string) =>
      found[
        param === 'personId' && /(leave|come-back|invite)$/.test(path)
          ? 'leadId'
          : param === 'linkId'
            ? (LINK_OF[path.split('/')[2] ?? ''] ?? '')
            : param
      ] ?? '',
  );
}

describe('who may do what', () => {
  let scene: Scene;
  let own: Things;
  let other: Things;
  let routes: string[];
  let door: Door;
  const callers = new Map<Who, Caller>();

  beforeAll(async () => {
    scene = await makeScene();
    own = await makeThings(scene, scene.a, true);
    other = await makeThings(scene, scene.b, false);
    const { body } = await new Caller(scene.address).call('GET', '/api/openapi.json');
    const paths = body['paths'] as Record<string, Record<string, unknown>>; // OpenAPI's own shape
    routes = Object.entries(paths).flatMap(([path, methods]) => Object.keys(methods).map((method) => `${method.toUpperCase()} ${path}`));
    await scene.app.read('update agencies set mark_mime = $1, mark_hash = (select hash from assets where id = $2)', [
      'image/png',
      own['assetId'],
    ]);
    for (const role of ['lead', 'manager', 'staff', 'freelance'] as const) callers.set(role, await callerAs(scene, role));
    callers.set('contact', await callerByLink(scene, 'room', scene.a.contactId));
    callers.set('form', await callerByLink(scene, 'ask', scene.a.linkId));
    callers.set('receipt', await callerByLink(scene, 'receipt', own['receipt'] ?? ''));
    callers.set('invited', await callerByLink(scene, 'invite', scene.people.freelance.personId));
    callers.set('resetting', await callerByLink(scene, 'reset', own['resetting'] ?? ''));
    callers.set('stranger', new Caller(scene.address));
    door = new Door(scene.server);
  });
  afterAll(() => scene.close());

  /** Refused means: an access code. What else is wrong with the call shows that it got past the door. */
  async function isLetIn(who: Who, route: string, found: Things): Promise<boolean> {
    const [method = '', path = ''] = route.split(' ');
    const caller = route === 'DELETE /api/session' && makers.includes(who) ? await callerAs(scene, who as 'lead') : callers.get(who);
    if (route === 'DELETE /api/markers/{markerId}')
      await scene.app.read(
        `insert into markers (id, client_id, kind, name, start_on, end_on) values ($1, $2, 'launch', 'Launch', '2027-03-16', '2027-03-16') on conflict do nothing`,
        [found['markerId'], found['clientId']],
      );
    if (route.includes('/markers/') || route.includes('/run-ups/'))
      await scene.app.read(
        `insert into run_ups (id, marker_id, client_id, offset_days, title, channel_id, route_id, created_at)
         select $1, m.id, $2, 0, 'R', h.id, r.id, now() from markers m, channels h, routes r where m.id = $3 and h.client_id = $2 limit 1 on conflict do nothing`,
        [found['runUpId'], found['clientId'], found['markerId']],
      );
    if (route.includes('/views/{'))
      await scene.app.read(
        `insert into saved_views (id, person_id, page, name, query) values ($1, $2, 'calendar', $3, '') on conflict do nothing`,
        [found['viewId'], scene.people.staff.personId, `View ${found['viewId']}`],
      );
    if (route.includes('/duties/{'))
      await scene.app.read(
        `insert into duties (id, client_id, title, rule, anchor_on, from_on, lead_id)
         select $1, $2, 'D', 'FREQ=DAILY', '2027-03-02', '2027-03-02', p.id from people p limit 1 on conflict do nothing`,
        [found['dutyId'], found['clientId']],
      );
    if (route === 'DELETE /api/observances/{observanceId}')
      await scene.app.read(`insert into yearly_days (id, client_id, name, month, day) values ($1, $2, $3, 5, 5) on conflict do nothing`, [
        found['observanceId'],
        found['clientId'],
        `Day ${found['observanceId']}`,
      ]);
    if (route === 'DELETE /api/rhythm/{ruleId}')
      await scene.app.read(
        `insert into rhythm_rules (id, client_id, channel_id, rule, at_time, anchor_on, from_on, skips_holidays)
         select $1, $2, h.id, 'FREQ=DAILY', '09:00', '2027-03-01', '2027-03-01', false from channels h where h.client_id = $2 limit 1 on conflict do nothing`,
        [found['ruleId'], found['clientId']],
      );
    const needsBody = method !== 'GET' && method !== 'DELETE' && method !== 'HEAD';
    const answer = await caller?.call(method, pathFor(path, found), needsBody ? { body: {} } : {});
    if (!answer || answer.status >= 500) throw new Error(`${who} ${route}: ${answer?.status} ${JSON.stringify(answer?.body)}`);
    if (method === 'HEAD') return answer.headers.has('tus-resumable'); // no body says why
    return !(String(answer.body['code'] ?? '').startsWith('access.') && answer.body['code'] !== 'access.sign_in_failed');
  }

  it('names every route of the API in the table, and no other', () => {
    expect([...routes].sort()).toEqual(Object.keys(TABLE).sort());
  });

  /** Whom the guard lets in, asked without a call. */
  async function letInByGuard(route: string, found: Things): Promise<Who[]> {
    const seen: Who[] = [];
    for (const who of EVERYONE) {
      const viewerId = who in scene.people ? scene.people[who as 'lead'].personId : undefined;
      if (await door.lets(route, pathFor(route.split(' ')[1] ?? '', found), { viewerId, cookies: callers.get(who)?.cookies }))
        seen.push(who);
    }
    return seen;
  }

  /**
   * The guard lets in exactly these, and a sample of calls comes to the same: the most and the least that are let in, and one who is not. Where a
   * handler refuses more than the guard, everybody calls.
   */
  async function expectLetIn(route: string, found: Things, allowed: string): Promise<void> {
    const byGuard = await letInByGuard(route, found);
    const isAlike = byGuard.join(' ') === allowed;
    const refused = EVERYONE.filter((who) => !byGuard.includes(who));
    const sample = isAlike ? [byGuard[0], byGuard.at(-1), refused[0]] : EVERYONE;
    const asked = EVERYONE.filter((who) => sample.includes(who));
    const seen = [];
    for (const who of asked) if (await isLetIn(who, route, found)) seen.push(who);
    expect(seen).toEqual(asked.filter((who) => allowed.split(' ').includes(who)));
  }

  it.each(Object.entries(TABLE))('%s: own client', (route, allowed) =>
    expectLetIn(route, own, route.startsWith('POST /api/') && route.endsWith('/open') ? all : allowed),
  );

  it.each(Object.keys(TABLE).filter((route) => /\{(?!secret)/.test(route)))('%s: another client’s is open to the lead alone', (route) =>
    expectLetIn(route, other, OF_NO_CLIENT[route] ?? (TABLE[route]?.includes('lead') ? 'lead' : '')),
  );

  it('hides another client from every list', async () => {
    for (const who of ['manager', 'staff'] as const)
      for (const path of [
        '/api/clients',
        '/api/pieces',
        '/api/obstacles',
        ...(who === 'manager' ? ['/api/guidelines'] : []),
        '/api/requests',
        '/api/packets',
        '/api/desk',
        '/api/calendar?from=2027-03-01&to=2027-04-30',
        '/api/find?q=piece',
        '/api/find?q=contact',
        ...(who === 'manager'
          ? ['/api/runway', '/api/slots?from=2027-03-01&to=2027-04-30', '/api/ideas', '/api/campaigns', '/api/duties', '/api/find?q=idea']
          : []),
      ]) {
        const answer = await callers.get(who)?.call('GET', path);
        const text = JSON.stringify(answer?.body);
        expect(text).not.toContain(other['pieceId']);
        expect(text).not.toContain(scene.b.id);
      }
  });

  it('refuses a revoked link, a forged one, and one for another purpose', async () => {
    const stranger = new Caller(scene.address);
    const token = scene.app.links.token('room', scene.b.contactId, 1);
    const forged = `${token.slice(0, -2)}${token.endsWith('AA') ? 'BB' : 'AA'}`;
    expect((await stranger.call('POST', '/api/room/open', { body: { token: forged } })).body['code']).toBe('access.link_not_open');
    expect((await stranger.call('POST', '/api/ask/open', { body: { token } })).body['code']).toBe('access.link_not_open');
    await scene.app.read('update contacts set link_generation = 2 where id = $1', [scene.b.contactId]);
    expect((await stranger.call('POST', '/api/room/open', { body: { token } })).body['code']).toBe('access.link_not_open');
  });

  it('refuses writes from another site, and keeps freelancers from agency-only answers', async () => {
    const refused = await callers
      .get('lead')
      ?.call('POST', `/api/requests/${own['requestId']}/read`, { headers: { Origin: 'https://elsewhere.test' } });
    expect(refused?.body['code']).toBe('access.wrong_origin');
  });
});
