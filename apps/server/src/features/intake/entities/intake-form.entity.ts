import type { FormField } from '@zesting/core';
import { Entity, Index, PrimaryColumn } from 'typeorm';
import {
  BigIntColumn,
  BoolColumn,
  IdColumn,
  IdKey,
  IntColumn,
  JsonColumn,
  Refers,
  TextColumn,
} from '../../../platform/database/columns.js';

/** The questions a client is asked, and the route that what is asked for takes. */
@Index('ix_intake_forms_client', ['clientId'])
@Entity('intake_forms')
export class IntakeForm {
  @IdKey() id: string;
  @Refers('Client', 'fk_intake_forms_client')
  @IdColumn()
  clientId: string;
  @TextColumn() title: string;
  @TextColumn({ default: () => "''" }) intro: string;
  @JsonColumn() fields: FormField[];
  @Refers('Route', 'fk_intake_forms_route')
  @IdColumn()
  routeId: string;
  @IntColumn({ default: 1 }) linkGeneration: number;
  @BoolColumn({ default: true }) linkOpen: boolean;
}

/** What came through a form’s link within an hour: so much and no more. */
@Entity('form_uses')
export class FormUse {
  @Refers('IntakeForm', 'fk_form_uses_form')
  @PrimaryColumn('uuid')
  formId: string;
  @PrimaryColumn('timestamp with time zone') hour: string;
  @IntColumn({ default: 0 }) requests: number;
  @IntColumn({ default: 0 }) files: number;
  @BigIntColumn({ default: () => '0' }) bytes: number;
  @BoolColumn({ default: false }) told: boolean;
}
