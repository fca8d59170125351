import { Temporal } from 'temporal-polyfill';
import { addDays, getValue, ok } from '@zesting/core';
import { addAsset, addNote, predict, replanOpen, sendRoundUps, type App } from '@zesting/server';
import { addCampaigns } from './campaigns.js';
import { CLIENTS } from './clients.js';
import { addDuties, markDuties } from './duties.js';
import { addGoals } from './goals.js';
import { addChecks, addTagSets } from './going-out.js';
import { addGuidelines } from './guidelines.js';
import { addInterviews } from './interviews.js';
import { addIntake } from './intake.js';
import { addMails } from './mails.js';
import { addDeliveries, addTeamMaterial } from './material.js';
import { drawPicture } from './pictures.js';
import { addMoney } from './money.js';
import { addObstacles } from './obstacles.js';
import { PieceStory } from './piece-story.js';
import { ASKED, STORY } from './pieces.js';
import { addIdea, addProductionDay, addRhythms, addRunUps, addThemes, IDEAS } from './plan.js';
import { planStory, textOf, todayOf } from './plan-story.js';
import { AGENCY } from './story.js';
import { addTeamRemarks } from './remarks.js';
import { TALK } from './talk.js';
import { addPages } from './pages.js';
import { addFollowUps, addSending, settleFollowUps } from './sending.js';
import { insertSetup, type Setup } from './setup.js';
import { addEvergreens } from './evergreen.js';
import { addKeptFiles } from './kept-files.js';
import { addPhrases } from './phrases.js';
import { addSpinOffs } from './spin-offs.js';
import { addSubjects } from './topics.js';

const DAY_MS = 86_400_000;

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
  await addFollowUps(app, setup);
  await addMoney(app, setup, todayOf(now, AGENCY));
  const plan = planStory(now, [...STORY, ...ASKED]);
  await addRhythms(app, setup, STORY, plan);
  const duties = await addDuties(app, setup, now);
  const stories = new Map([...STORY, ...ASKED].map((piece) => [piece, new PieceStory(app, setup, piece, plan.wishOn(piece))]));
  const present = Temporal.Instant.from(now).epochMilliseconds;
  const ideas = [...IDEAS].sort((a, b) => b.daysAgo - a.daysAgo);
  const dayAfter = (days: number) => addDays(todayOf(now, AGENCY), days);
  for (const moment of plan.moments.filter(({ atMs }) => atMs < present)) {
    // what was caught before this happened
    for (let next = ideas[0]; next && present - next.daysAgo * DAY_MS <= moment.atMs; next = ideas[0]) {
      app.clock.set(textOf(present - next.daysAgo * DAY_MS));
      await addIdea(app, setup, next, dayAfter);
      ideas.shift();
    }
    app.clock.set(textOf(moment.atMs));
    await stories.get(moment.piece)?.play(moment.act);
    await sendRoundUps(app);
  }
  await addObstacles(app, setup, now);
  await addDeliveries(app, setup, now);
  await settleFollowUps(app, setup, now);
  await addSending(app, setup, now);
  app.clock.set(now);
  await markDuties(app, setup, duties);
  getValue(await app.write(async (tx, at) => ok(await replanOpen(tx, at))));
  for (const moment of plan.moments.filter(({ atMs }) => atMs === present)) await stories.get(moment.piece)?.play(moment.act);
  await addSpinOffs(app, setup, now);
  await addEvergreens(app, setup, now);
  getValue(await app.write(async (tx, at) => ok(await predict(tx, at))));
  for (const idea of ideas) await addIdea(app, setup, idea, dayAfter);
  await addThemes(app, setup, now);
  await addRunUps(app, setup);
  await addProductionDay(app, setup);
  await addSubjects(app, setup, now);
  await addInterviews(app, setup, now);
  await addGoals(app, setup, now);
  await addCampaigns(app, setup, now);
  await addTalk(app, setup);
  await addTeamRemarks(app, setup);
  await addTeamMaterial(app, setup);
  await addTagSets(app, setup);
  await addPhrases(app, setup);
  await addKeptFiles(app, setup, now);
  await addPages(app);
  await addChecks(app, setup);
  await addGuidelines(app, setup);
  await addIntake(app, setup);
  await addMails(app, setup);
}

/** What the team said about some pieces, and added to their briefs. */
async function addTalk(app: App, setup: Setup): Promise<void> {
  for (const { piece, by, kind, text } of TALK) {
    const [found] = await app.read<{ id: string }>('select id from pieces where title = $1', [piece]);
    if (!found) throw new Error(`the talk is about a piece that is not there: ${piece}`);
    getValue(await addNote(app, setup.viewers[by], { pieceId: found.id }, { kind, text, assetIds: [], mentionIds: [] }));
  }
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
