import { Temporal } from 'temporal-polyfill';
import { addDays, dayIn, getValue, ok, toInstantAfterGap, weekdayOf, type TimeOfDay } from '@zesting/core';
import { addAsset, predict, replanOpen, sendRoundUps, type App } from '@zesting/server';
import { CLIENTS } from './clients.js';
import { drawPicture } from './pictures.js';
import { PieceStory, type Thread } from './piece-story.js';
import { ASKED, STORY, type Ending, type StoryPiece } from './pieces.js';
import { insertSetup, type Setup } from './setup.js';

/** One thing that happens at a moment of the story. */
interface Scene {
  readonly at: string;
  readonly play: () => Promise<void>;
}

/** How far each ending goes along the way; scenes beyond are left out. */
const REACH: Record<Ending, number> = {
  asked: 0,
  declined: 0,
  accepted: 1,
  assigned: 2,
  stalled: 2,
  tight: 2,
  beyond: 1,
  making: 3,
  overrun: 3,
  handed_back: 4,
  in_check: 4,
  ready: 5,
  pencilled: 5,
  with_client: 6,
  past_due: 6,
  changes_asked: 6,
  second_round: 6,
  approved: 7,
  scheduled: 8,
  changed_after: 8,
  out: 9,
  missed: 9,
};

/** The share of the way from asked to today at which each stretch happens. */
const PACE = { accept: 0.05, assign: 0.1, begin: 0.2, made: 0.5, checked: 0.55, sent: 0.6, decided: 0.75, again: 0.85, placed: 0.9 };

/**
 * Loads the demo through the use cases, each at its own moved time, all relative to `now`. The clock is put back at the end.
 * @param now the moment that counts as the present
 */
export async function loadDemo(app: App, now: string): Promise<void> {
  const setup = await insertSetup(app, now);
  app.clock.set(
    Temporal.Instant.from(now)
      .subtract({ hours: 24 * 45 })
      .toString(),
  );
  await addLogos(app, setup);
  const scenes = [...STORY, ...ASKED].flatMap((piece) => scenesOf(app, setup, piece, now));
  scenes.sort((a, b) => Temporal.Instant.compare(a.at, b.at));
  for (const scene of scenes.filter(({ at }) => at !== now)) {
    app.clock.set(scene.at);
    await scene.play();
    await sendRoundUps(app);
  }
  app.clock.set(now);
  getValue(await app.write(async (tx, at) => ok(await replanOpen(tx, at))));
  for (const scene of scenes.filter(({ at }) => at === now)) await scene.play();
  getValue(await app.write(async (tx, at) => ok(await predict(tx, at))));
}

/** Draws a mark for each client's brand sheet. */
async function addLogos(app: App, setup: Setup): Promise<void> {
  for (const piece of STORY.filter((one, index) => STORY.findIndex((other) => other.client === one.client) === index)) {
    const [motif, palette] = piece.picture;
    const stored = getValue(await app.files.store(await drawPicture(motif, palette, 99, 480, 480)));
    const clientId = setup.clients[piece.client].id;
    const name = `${CLIENTS[piece.client].code.toLowerCase()}-mark.png`;
    getValue(
      await app.write(async (tx, now) => {
        const { assetId } = await addAsset(tx, stored, { clientId, pieceId: null, name, now });
        await tx.query("update clients set brand = jsonb_set(brand, '{logos}', jsonb_build_array($2::text)) where id = $1", [
          clientId,
          assetId,
        ]);
        return ok(null);
      }),
    );
  }
}

/** A moment `share` of the way from the asking to now (or to the day it went out), at a working hour of a weekday where it can be. */
function momentOf(now: string, piece: StoryPiece, share: number, hour: number): string {
  const endDaysAgo = Math.max(0, -(piece.inDays ?? 0));
  let on = addDays(dayIn(now, 'UTC'), -Math.round(endDaysAgo + (piece.askedDaysAgo - endDaysAgo) * (1 - share)));
  while (weekdayOf(on) > 5) on = addDays(on, -1);
  const at = toInstantAfterGap(on, `${String(hour).padStart(2, '0')}:00` as TimeOfDay, 'UTC'); // an hour of the day
  return Temporal.Instant.compare(at, now) < 0 ? at : Temporal.Instant.from(now).subtract({ minutes: 20 }).toString();
}

function scenesOf(app: App, setup: Setup, piece: StoryPiece, now: string): Scene[] {
  const thread: Thread = { requestId: '', pieceId: '' };
  const at = (share: number, hour: number) => momentOf(now, piece, share, hour);
  const story = new PieceStory(app, setup, piece, thread, now);
  const scenes: (Scene | false)[] = [
    { at: at(0, 9), play: () => story.ask() },
    piece.ending === 'declined' && { at: at(0.3, 11), play: () => story.decline() },
    REACH[piece.ending] >= 1 && { at: at(PACE.accept, 10), play: () => story.accept() },
    REACH[piece.ending] >= 2 && { at: at(PACE.assign, 11), play: () => story.assign() },
    REACH[piece.ending] >= 3 && { at: at(PACE.begin, 12), play: () => story.begin() },
    REACH[piece.ending] >= 4 && { at: at(PACE.made, 13), play: () => story.make() },
    piece.ending === 'handed_back' && { at: at(PACE.checked, 14), play: () => story.handBack() },
    REACH[piece.ending] >= 5 && { at: at(PACE.checked, 14), play: () => story.check() },
    piece.ending === 'pencilled' && { at: at(PACE.sent, 14), play: () => story.place() },
    REACH[piece.ending] >= 6 && { at: at(PACE.sent, 15), play: () => story.send(piece.ending === 'past_due' ? 1 : 6) },
    ['changes_asked', 'second_round'].includes(piece.ending) && {
      at: at(PACE.decided, 16),
      play: () => story.decide('changes', 'Please show the hands too, and take out the price.'),
    },
    piece.ending === 'second_round' && { at: at(PACE.again, 17), play: () => story.secondRound() },
    REACH[piece.ending] >= 7 && { at: at(PACE.decided, 16), play: () => story.decide('approve', '') },
    REACH[piece.ending] >= 8 && { at: at(PACE.placed, 17), play: () => story.place() },
    piece.ending === 'changed_after' && { at: at(1, 8), play: () => story.changeOneChannel() },
    piece.ending === 'tight' && { at: now, play: () => story.wishFor(0) },
    piece.ending === 'overrun' && { at: now, play: () => story.overrun() },
    piece.ending === 'beyond' && { at: now, play: () => story.wishFor(-1) },
    piece.ending === 'out' && { at: dayAt(now, (piece.inDays ?? 0) + 1, 9), play: () => story.out() },
  ];
  return scenes.filter((scene) => scene !== false);
}

const dayAt = (now: string, inDays: number, hour: number): string =>
  toInstantAfterGap(addDays(dayIn(now, 'UTC'), inDays), `${String(hour).padStart(2, '0')}:00` as TimeOfDay, 'UTC'); // an hour of the day
