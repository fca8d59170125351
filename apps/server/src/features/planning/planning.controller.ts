import { Controller, Get } from '@nestjs/common';
import type { RouteShape } from '@zesting/contract';
import { Access } from '../../platform/access/access.js';
import { Database } from '../../platform/database/transaction.js';
import type { RouteStep } from './routes.js';

@Controller('routes')
export class PlanningController {
  constructor(private readonly database: Database) {}

  /** The routes that a piece can take. */
  @Get()
  @Access('client.read')
  async list(): Promise<RouteShape[]> {
    const rows = await this.database.read<{ id: string; name: string; format_id: string; format_name: string; steps: RouteStep[] }>(
      'select r.id, r.name, r.format_id, f.name as format_name, r.steps from routes r join formats f on f.id = r.format_id order by f.name, r.name',
    );
    return rows.map((row) => ({
      id: row.id,
      name: row.name,
      formatId: row.format_id,
      formatName: row.format_name,
      steps: row.steps.map((step) => step.title),
    }));
  }
}
