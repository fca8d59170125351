import type { FormContent } from '@zesting/core';
import { Check, Entity, Index, PrimaryColumn } from 'typeorm';
import {
  BigIntColumn,
  BoolColumn,
  IdColumn,
  IdKey,
  InstantColumn,
  IntColumn,
  JsonColumn,
  Refers,
  TextColumn,
} from '../../../platform/database/columns.js';

/** A form of questions: what is asked stands in its versions, what is being changed in its draft. */
@Check('ck_intake_forms_something', 'draft is not null or published_version is not null')
@Index('ix_intake_forms_title', ['title', 'id'])
@Entity('intake_forms')
export class IntakeForm {
  @IdKey() id: string;
  /** as the draft says it, else as it is published */
  @TextColumn() title: string;
  /** null where nothing was changed since it was published */
  @JsonColumn({ nullable: true }) draft: FormContent | null;
  @IntColumn({ nullable: true }) publishedVersion: number | null;
  @InstantColumn({ nullable: true }) archivedAt: string | null;
  @IntColumn({ default: 1 }) version: number;
}

/** What a form asked from one day on; it never changes. */
@Entity('form_versions')
export class FormVersion {
  @Refers('IntakeForm', 'fk_form_versions_form')
  @PrimaryColumn('uuid')
  formId: string;
  @PrimaryColumn('int') number: number;
  @JsonColumn() content: FormContent;
  @InstantColumn() publishedAt: string;
  @TextColumn() publishedBy: string;
}

/** Which clients a form is for. */
@Index('ix_form_clients_client', ['clientId'])
@Entity('form_clients')
export class FormClient {
  @Refers('IntakeForm', 'fk_form_clients_form')
  @PrimaryColumn('uuid')
  formId: string;
  @Refers('Client', 'fk_form_clients_client')
  @PrimaryColumn('uuid')
  clientId: string;
}

/** One address under which a form asks one client's people. */
@Index('ix_form_links_form', ['formId'])
@Index('ix_form_links_client', ['clientId'])
@Entity('form_links')
export class FormLink {
  @IdKey() id: string;
  @Refers('IntakeForm', 'fk_form_links_form')
  @IdColumn()
  formId: string;
  @Refers('Client', 'fk_form_links_client')
  @IdColumn()
  clientId: string;
  /** where it was handed out */
  @TextColumn() label: string;
  /** sites that may embed the form by it */
  @JsonColumn({ default: () => "'[]'" }) origins: string[];
  /** how many requests came by it */
  @IntColumn({ default: 0 }) requests: number;
  @IntColumn({ default: 1 }) linkGeneration: number;
  @BoolColumn({ default: true }) linkOpen: boolean;
  @InstantColumn() madeAt: string;
}

/** What came through a form’s link within an hour: so much and no more. */
@Entity('form_uses')
export class FormUse {
  @Refers('FormLink', 'fk_form_uses_link')
  @PrimaryColumn('uuid')
  linkId: string;
  @PrimaryColumn('timestamp with time zone') hour: string;
  @IntColumn({ default: 0 }) requests: number;
  @IntColumn({ default: 0 }) files: number;
  @BigIntColumn({ default: () => '0' }) bytes: number;
  @BoolColumn({ default: false }) told: boolean;
}
