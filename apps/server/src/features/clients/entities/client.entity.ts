import { Column, Entity, PrimaryColumn } from 'typeorm';
import type { BrandBody } from '@zesting/contract';
import type { SignOffPolicy } from '@zesting/core';
import { BoolColumn, IntColumn, JsonColumn, TextColumn } from '../../../platform/database/columns.js';

/** An organisation served. */
@Entity('clients')
export class Client {
  @PrimaryColumn('uuid') id: string;
  @TextColumn() code: string;
  @TextColumn() name: string;
  @IntColumn() colour: number;
  @TextColumn() zone: string;
  @TextColumn() region: string;
  @IntColumn({ array: true }) weeklyMinutes: number[];
  @Column({ type: 'time' }) usualTime: string;
  @JsonColumn() policy: SignOffPolicy;
  @IntColumn() roundsAgreed: number;
  @IntColumn() feedGeneration: number;
  @BoolColumn() feedPencilled: boolean;
  @TextColumn({ array: true }) observances: string[];
  @JsonColumn() brand: BrandBody;
  @IntColumn() version: number;
}
