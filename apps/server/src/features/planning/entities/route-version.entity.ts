import type { RouteStep } from '@zesting/core';
import { Entity, PrimaryColumn } from 'typeorm';
import { JsonColumn, Refers } from '../../../platform/database/columns.js';

/** The steps that a route had in one of its states: what pieces that are under way were made by. */
@Entity('route_versions')
export class RouteVersion {
  @Refers('Route', 'fk_route_versions_route')
  @PrimaryColumn('uuid')
  routeId: string;
  @PrimaryColumn('int') version: number;
  @JsonColumn() steps: RouteStep[];
}
