import { pageOf } from './pages.js';
import {
  addDays,
  addWorkingDays,
  CHANNEL_STOCK,
  cropAround,
  getDay,
  getValue,
  isWorkingDay,
  ok,
  sentencesIn,
  isByClient,
  type Day,
  type StepKind,
} from '@zesting/core';
import type { ContentBody, CropBody, ThingBody } from '@zesting/contract';
import {
  acceptRequest,
  acceptStep,
  addPieceFile,
  approveForClient,
  assignStep,
  takeWith,
  beginStep,
  changePiecePath,
  clientKey,
  decide,
  declineRequest,
  doerKey,
  editContent,
  editPiece,
  getDoer,
  handBack,
  handIn,
  loadCalendars,
  loadSources,
  markOut,
  markRead,
  movePlacement,
  pieceState,
  predict,
  sayRemaining,
  sendPacket,
  settleRemark,
  submitRequest,
  tickLine,
  type App,
  type Viewer,
} from '@zesting/server';
import { UNADDRESSED } from './going-out.js';
import { CLIENTS } from './clients.js';
import { drawPicture } from './pictures.js';
import type { StoryPiece } from './pieces.js';
import { doerFor, type Act } from './plan-story.js';
import type { Setup } from './setup.js';
import type { PersonKey } from './story.js';
import { laidOutCopy, textsOf, writingOf } from './writing.js';
import { ROUTES } from './story.js';

/** The shape in which the demo's pictures are drawn. */
const DRAWN_SHAPE = '4:5';

/** Pieces whose steps were offered, and nobody has said yet whether they do them. */
const STILL_ASKED = ['Inside the deck oven'];
/** Pieces of which the staff writer learns how the rest is made. */
const LEARNT = ['The model room opens'];

interface StepRow {
  id: string;
  kind: StepKind;
  skill: string;
  checklist: string[];
}

/** The moments of one piece, each through a use case. */
export class PieceStory {
  /** what the moments pass on to each other */
  private readonly thread = { requestId: '', pieceId: '' };

  constructor(
    private readonly app: App,
    private readonly setup: Setup,
    private readonly piece: StoryPiece,
    /** the day wished for; null where none was named */
    private readonly wishOn: Day | null,
  ) {}

  /** Lets one thing happen to the piece. */
  play(act: Act): Promise<void> {
    const plays: Record<Act, () => Promise<void>> = {
      ask: () => this.ask(),
      decline: () => this.decline(),
      accept: () => this.accept(),
      assign: () => this.assign(),
      begin: () => this.begin(),
      make: () => this.make(),
      check: () => this.check(),
      hand_back: () => this.handBack(),
      pencil: () => this.place(),
      send: () => this.send(this.piece.ending === 'past_due' ? 1 : 6),
      ask_for_changes: () => this.decide('changes'),
      second_round: () => this.secondRound(),
      approve: () => this.decide('approve'),
      place: () => this.place(),
      edit_after: () => this.changeOneChannel(),
      mark_out: () => this.out(),
      wish_tight: () => this.wishFor(0),
      wish_beyond: () => this.wishFor(-1),
      overrun: () => this.overrun(),
    };
    return plays[act]();
  }

  private get client() {
    return this.setup.clients[this.piece.client];
  }

  private viewer(key: PersonKey): Viewer {
    return this.setup.viewers[key];
  }

  /** The client as the story tells it. */
  private get told() {
    return CLIENTS[this.piece.client];
  }

  private get manager(): Viewer {
    return this.viewer(this.told.manager);
  }

  private doerOf(skill: string): PersonKey {
    return doerFor(this.piece.client, skill);
  }

  private async ask(): Promise<void> {
    const contact = this.told.contacts[this.piece.picture[2] % 2] ?? this.told.contacts[0];
    if (!contact) throw new Error('a client without a contact');
    const submitted = getValue(
      await submitRequest(
        this.app,
        this.client.linkId,
        {
          name: contact.name,
          email: contact.email,
          answers: {
            about: this.piece.title,
            aim: this.piece.copy || 'People should look forward to it and come by in the week it is out.',
            audience: 'People who know us',
            ...(this.wishOn === null ? {} : { wish: this.wishOn }),
          },
          version: 1,
        },
        `demo-${this.piece.picture[2]}`,
      ),
    );
    this.thread.requestId = submitted.requestId;
  }

  /** Wishes for the latest date that leaves the path no more than so many working days of slack. */
  private async wishFor(slackDays: number): Promise<void> {
    const [source] = await loadSources(this.app.manager, [this.thread.pieceId]);
    if (!source) throw new Error('no piece');
    const book = await loadCalendars(this.app.manager, this.app.clock.now());
    const earliest = getDay(pieceState(source, book).earliestPublishOn ?? '');
    for (let later = 21; later > -10; later--) {
      const wishOn = addDays(earliest, later);
      const { slackDays: left } = pieceState({ ...source, wish_on: wishOn }, book);
      if (left === null || left > slackDays) continue;
      const [row] = await this.app.read<{ version: number }>('select version from pieces where id = $1', [this.thread.pieceId]);
      getValue(await editPiece(this.app, this.manager, this.thread.pieceId, { wishOn }, row?.version ?? 0));
      return;
    }
    throw new Error(`no date leaves “${this.piece.title}” ${slackDays} days of slack`);
  }

  /** The doer of the step at hand finds more work than was thought: just so much that it is predicted to end after its latest day. */
  private async overrun(): Promise<void> {
    await this.wishFor(2);
    const [step] = await this.steps();
    if (!step) throw new Error('no step');
    for (let minutes = 600; minutes < 10_000; minutes += 120) {
      getValue(await sayRemaining(this.app, this.viewer(this.doerOf(step.skill)), step.id, minutes));
      getValue(await this.app.write(async (tx, now) => ok(await predict(tx, now))));
      const [row] = await this.app.read<{ danger: string }>('select danger from pieces where id = $1', [this.thread.pieceId]);
      if (row?.danger === 'will_be_late') return;
    }
    throw new Error(`no amount of work makes “${this.piece.title}” late`);
  }

  private async decline(): Promise<void> {
    getValue(
      await declineRequest(
        this.app,
        this.manager,
        this.thread.requestId,
        'A lovely thought, but a song is not something that we can make well.',
      ),
    );
  }

  private async accept(): Promise<void> {
    getValue(await markRead(this.app, this.thread.requestId));
    const body = {
      title: this.piece.title,
      routeId: this.setup.routes[this.piece.route],
      pillarId: this.client.pillarIds[this.piece.pillar] ?? null,
      // what is in season asks to come, how-to lets know, what is behind it asks for a word
      purpose: (['come', 'know', 'react'] as const)[this.piece.pillar] ?? null,
      channelIds: this.piece.channels.map((position) => this.client.channelIds[position] ?? ''),
      wishOn: this.wishOn,
      notes: 'Keep it plain and warm; the client dislikes exclamation marks.',
    };
    [this.thread.pieceId] = getValue(await acceptRequest(this.app, this.manager, this.thread.requestId, body)) as [string];
  }

  private steps(): Promise<StepRow[]> {
    return this.app.read<StepRow>(
      'select id, kind, skill, checklist from steps where piece_id = $1 and finished_on is null order by position',
      [this.thread.pieceId],
    );
  }

  private async assign(): Promise<void> {
    for (const step of await this.steps()) {
      if (isByClient(step.kind)) continue;
      const doer = this.viewer(this.doerOf(step.skill));
      getValue(await assignStep(this.app, this.manager, step.id, doer.personId));
      // one that was given only now is not taken on yet
      if (!STILL_ASKED.includes(this.piece.title)) getValue(await acceptStep(this.app, doer, step.id));
      if (step.kind === 'make' && LEARNT.includes(this.piece.title)) await this.learn(step.id, doer.personId);
    }
    if (this.piece.route === 'clip' && (this.piece.inDays ?? 0) > 40) await this.pinSecond();
  }

  /** The staff writer sits with whoever does it, to learn it. */
  private async learn(stepId: string, doerId: string): Promise<void> {
    const { personId } = this.viewer('sunniva');
    const [step] = await this.app.read<{ version: number }>('select version from steps where id = $1', [stepId]);
    if (personId !== doerId) getValue(await takeWith(this.app, this.manager, stepId, personId, step?.version ?? 0));
  }

  /** The manager wants the second step a week before it has to be: there is something else to do afterwards. */
  private async pinSecond(): Promise<void> {
    const [source] = await loadSources(this.app.manager, [this.thread.pieceId]);
    const step = source?.steps[1];
    if (!source || !step) throw new Error('no second step');
    const book = await loadCalendars(this.app.manager, this.app.clock.now());
    const latest = pieceState(source, book).plan?.steps.find(({ id }) => id === step.id)?.latestFinishOn;
    if (!latest) throw new Error('no latest day');
    const finishOn = getValue(addWorkingDays(getDoer(book, doerKey(step, source.client_id)).calendar, latest, -5));
    getValue(await changePiecePath(this.app, this.manager, this.thread.pieceId, [{ kind: 'pin', stepId: step.id, finishOn }]));
  }

  private async begin(): Promise<void> {
    const [first] = await this.steps();
    if (first) getValue(await beginStep(this.app, this.viewer(this.doerOf(first.skill)), first.id));
    await this.write(this.piece.copy);
  }

  private async write(copy: string): Promise<void> {
    const [row] = await this.app.read<{ content_version: number; media: { assetId: string; alt: string; hash: string }[] }>(
      "select content_version, content -> 'shared' -> 'media' as media from pieces where id = $1",
      [this.thread.pieceId],
    );
    const media = row?.media ?? [];
    if (media.length === 0) {
      const [motif, palette, seed] = this.piece.picture;
      const file = getValue(
        await addPieceFile(this.app, this.thread.pieceId, {
          name: `${this.piece.title.toLowerCase().replaceAll(/[^a-z]+/g, '-')}.png`,
          bytes: await drawPicture(motif, palette, seed),
        }),
      );
      media.push({
        assetId: file.assetId,
        alt: this.told.alt,
        hash: file.hash,
      });
    }
    const channels = this.piece.channels.map((position, index) => ({
      channelId: this.client.channelIds[position] ?? '',
      copy: index === 0 ? '' : (copy.split('. ')[0] ?? ''),
      tags: index === 0 ? [...this.told.tags] : [],
      firstComment: '',
      link: this.told.channels[position]?.kind === 'newsletter' ? pageOf(this.told.code, this.piece.title) : '',
      crops: this.cropsOn(position, media),
    }));
    const { texts: asked, isLaidOut = false } = writingOf(ROUTES[this.piece.route].format);
    const texts = textsOf(asked, this.piece.title, copy);
    const shared = isLaidOut ? { copy: laidOutCopy(this.piece.title, copy), isLaidOut } : { copy };
    const body: ContentBody = {
      shared: { ...shared, media: media.map(({ assetId, alt }) => ({ assetId, alt })), disclosure: '', texts },
      channels,
    };
    getValue(await editContent(this.app, this.manager, this.thread.pieceId, body, row?.content_version ?? 1));
  }

  /** Most pictures are cut where a channel cuts what has another shape; of some nobody has thought yet. */
  private cropsOn(position: number, media: readonly { readonly hash: string }[]): CropBody[] {
    const channel = this.told.channels[position];
    if (!channel || !CHANNEL_STOCK[channel.kind].cutsMedia || this.piece.picture[2] % 4 === 0) return [];
    return channel.ratio === DRAWN_SHAPE ? [] : media.map(({ hash }) => ({ hash, ...cropAround(channel.ratio, { x: 5000, y: 4200 }) }));
  }

  private async make(): Promise<void> {
    for (const step of await this.steps())
      if (step.kind === 'make') getValue(await handIn(this.app, this.viewer(this.doerOf(step.skill)), step.id));
  }

  private async check(): Promise<void> {
    for (const step of await this.steps()) {
      if (step.kind !== 'check') continue;
      for (const position of step.checklist.keys()) getValue(await tickLine(this.app, this.manager, step.id, { position, isDone: true }));
      getValue(await handIn(this.app, this.manager, step.id));
    }
  }

  private async handBack(): Promise<void> {
    for (const step of await this.steps())
      if (step.kind === 'check')
        getValue(
          await handBack(this.app, this.manager, step.id, 'The crumb is too dark on the left. Lighter, please, and a touch warmer.'),
        );
  }

  /** Sends the piece; the answer is due on the client's first working day `withinDays` from then. */
  private async send(withinDays: number): Promise<void> {
    if (this.told.policy.kind === 'agency') return; // nothing goes to this client
    const book = await loadCalendars(this.app.manager, this.app.clock.now());
    const client = getDoer(book, clientKey(this.client.id));
    let dueOn = addDays(client.todayOn, withinDays);
    while (!isWorkingDay(client.calendar, dueOn)) dueOn = addDays(dueOn, 1);
    getValue(
      await sendPacket(this.app, this.manager, this.client.id, {
        title: this.piece.title,
        message: '',
        pieceIds: [this.thread.pieceId],
        dueOn,
      }),
    );
  }

  private async decide(verdict: 'approve' | 'changes'): Promise<void> {
    if (this.told.policy.kind === 'agency') {
      getValue(await approveForClient(this.app, this.manager, this.thread.pieceId));
      return;
    }
    const [packet] = await this.app.read<{ id: string; approver_ids: string[]; version_id: string }>(
      'select k.id, k.approver_ids, i.version_id from packets k join packet_items i on i.packet_id = k.id where i.piece_id = $1 and i.outcome is null',
      [this.thread.pieceId],
    );
    if (!packet) throw new Error(`no packet out for ${this.piece.title}`);
    for (const contactId of packet.approver_ids) {
      const decided = getValue(
        await decide(this.app, {
          packetId: packet.id,
          pieceId: this.thread.pieceId,
          contactId,
          verdict,
          things: verdict === 'changes' ? await this.wanted(packet.version_id) : [],
          versionId: packet.version_id,
          onBehalf: null,
        }),
      );
      if (decided.outcome !== null) return; // as many as the policy asks for have spoken
    }
  }

  /** What the client wants changed: something in the first picture, and the last sentence. */
  private async wanted(versionId: string): Promise<ThingBody[]> {
    const [version] = await this.app.read<{ content: ContentBody }>('select content from versions where id = $1', [versionId]);
    const { copy = '', media = [] } = version?.content.shared ?? {};
    const sentence = sentencesIn(copy).at(-1);
    const area = { x: 5200, y: 4300, width: 3600, height: 3400 };
    return [
      { text: 'Please show the hands too', place: media[0] ? { kind: 'region', assetId: media[0].assetId, ...area } : null },
      {
        text: 'This sounds like an advertisement: plainer, please',
        place: sentence ? { kind: 'stretch', channelId: null, ...sentence, words: copy.slice(sentence.from, sentence.to) } : null,
      },
    ];
  }

  private async secondRound(): Promise<void> {
    await this.write(`${this.piece.copy} That is all.`);
    for (const { id } of await this.app.read<{ id: string }>("select id from remarks where piece_id = $1 and state = 'open'", [
      this.thread.pieceId,
    ]))
      getValue(await settleRemark(this.app, this.viewer(this.told.writer), id, { state: 'settled' }));
    await this.make();
    await this.check();
    await this.send(6);
  }

  private async place(): Promise<void> {
    const on = this.wishOn;
    if (on === null) return;
    const placements = await this.app.read<{ id: string; version: number }>(
      'select l.id, l.version from placements l join channels h on h.id = l.channel_id where l.piece_id = $1 order by h.position',
      [this.thread.pieceId],
    );
    for (const [index, placement] of placements.entries())
      getValue(await movePlacement(this.app, this.manager, placement.id, { on: addDays(on, index === 0 ? 0 : 1) }, placement.version));
  }

  /** An edit of one channel's copy after sign-off: that part alone is void. */
  private async changeOneChannel(): Promise<void> {
    const [row] = await this.app.read<{
      content_version: number;
      content: { shared: ContentBody['shared']; channels: Record<string, Omit<ContentBody['channels'][number], 'channelId'>> };
    }>('select content_version, content from pieces where id = $1', [this.thread.pieceId]);
    if (!row) throw new Error('no piece');
    const channels = Object.entries(row.content.channels).map(([channelId, part]) => ({
      ...part,
      channelId,
      copy: channelId === this.client.channelIds[2] ? 'Slow, soft and fond of shade: an honest look at moss lawns.' : part.copy,
    }));
    getValue(await editContent(this.app, this.manager, this.thread.pieceId, { shared: row.content.shared, channels }, row.content_version));
  }

  private async out(): Promise<void> {
    const placements = await this.app.read<{ id: string; code: string; number: number }>(
      `select l.id, c.code, p.number from placements l join pieces p on p.id = l.piece_id join clients c on c.id = p.client_id where l.piece_id = $1`,
      [this.thread.pieceId],
    );
    const isKnown = (index: number) => this.piece.title !== UNADDRESSED || index === 0;
    for (const [index, placement] of placements.entries())
      getValue(
        await markOut(this.app, this.manager, placement.id, {
          address: isKnown(index) ? `https://${placement.code.toLowerCase()}.test/${placement.number}/${index + 1}` : null,
        }),
      );
  }
}
