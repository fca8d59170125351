import { createHmac } from 'node:crypto';
import type { SetUpBody } from '@zesting/contract';
import { fail, ok, type Result } from '@zesting/core';
import { recordActivity } from '../../../platform/activity.js';
import type { App } from '../../../platform/app.js';
import type { Config } from '../../../platform/config/config.js';
import { rowsOf } from '../../../platform/database/transaction.js';
import { hashPassword, isEasilyGuessed } from '../../identity/index.js';
import { addFirstLead } from '../../people/index.js';
import { Agency } from '../entities/agency.entity.js';
import { takeStock } from './take-stock.js';

/** Whether setting up asks for a code: where strangers may reach an empty Zesting first. */
export const needsCode = (config: Config): boolean => config.publicAddress.startsWith('https:');

/** What whoever installs Zesting reads in its log: twelve letters and digits in threes, made of the server's key. */
export function setUpCode(config: Config): string {
  const digest = createHmac('sha256', config.serverKey).update('set-up').digest('hex').slice(0, 12);
  return digest.replace(/(...)(?=.)/g, '$1-');
}

export const hasAgency = async (app: App): Promise<boolean> => (await app.read('select 1 from agencies')).length > 0;

type Failure = { code: 'agency.set_up_already' | 'agency.code_wrong' | 'password.easily_guessed' };

/**
 * Sets up the agency of an empty Zesting, with its first lead and, if wanted, the starting stock.
 * @returns the lead's id
 */
export async function setUp(app: App, body: SetUpBody): Promise<Result<string, Failure>> {
  if (needsCode(app.config) && body.code?.trim().toLowerCase() !== setUpCode(app.config)) return fail({ code: 'agency.code_wrong' });
  if (isEasilyGuessed(body.password, [body.name, body.email, body.agencyName])) return fail({ code: 'password.easily_guessed' });
  const passwordHash = await hashPassword(body.password);
  return app.write<string, Failure>(async (tx, now) => {
    await tx.query('lock table agencies in share row exclusive mode'); // two at once: one of them sets up
    if ((await rowsOf(tx, 'select 1 from agencies')).length > 0) return fail({ code: 'agency.set_up_already' });
    const { zone, region, weeklyMinutes } = body;
    await tx.insert(Agency, { name: body.agencyName.trim(), zone, region, weeklyMinutes, cutOff: body.cutOff });
    const lead = await addFirstLead(tx, { name: body.name.trim(), email: body.email, passwordHash, zone, region, weeklyMinutes });
    const [agency] = await rowsOf<{ id: string }>(tx, 'select id from agencies');
    await recordActivity(tx, {
      clientId: null,
      thing: 'agency',
      thingId: agency?.id ?? '',
      verb: 'agency.set_up',
      actor: lead.name,
      at: now,
    });
    if (body.withStock) await takeStock(tx, lead.name, now);
    return ok(lead.id);
  });
}
