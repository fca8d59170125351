import { ArrayMaxSize, ArrayUnique, IsArray, IsIn, IsObject, IsString, IsUUID, Matches, MaxLength } from 'class-validator';
import {
  BRIEF_FACTS,
  type Answers,
  type BriefFact,
  type FormContent,
  type FormDocument,
  type FormItem,
  type FoundFault,
} from '@zesting/core';
import { IsNotBlank, Optional } from '../fields/index.js';

/** A site that may embed a form: scheme and host, nothing after. */
const ORIGIN = /^https?:\/\/[a-z0-9-]+(\.[a-z0-9-]+)*(:\d{1,5})?$/;

/** Begins a form: a starting one by its name, a copy of another, one from a file, or with a title question alone. */
export class NewFormBody {
  @IsString()
  @IsNotBlank()
  @MaxLength(100)
  title: string;

  @IsArray()
  @ArrayMaxSize(500)
  @ArrayUnique()
  @IsUUID('all', { each: true })
  clientIds: string[];

  @Optional()
  @IsString()
  @MaxLength(100)
  stock?: string;

  @Optional()
  @IsUUID()
  copyOf?: string;

  @Optional()
  @IsObject()
  document?: FormDocument;
}

export class FormMadeShape {
  formId: string;
  /** names in the file that nothing here has */
  unknown: string[];
}

export class SaveFormBody {
  @IsObject()
  content: FormContent;
}

export class FormClientsBody {
  @IsArray()
  @ArrayMaxSize(500)
  @ArrayUnique()
  @IsUUID('all', { each: true })
  clientIds: string[];
}

export class FormLinkBody {
  /** where it was handed out */
  @IsString()
  @IsNotBlank()
  @MaxLength(100)
  label: string;

  /** sites that may embed the form by it */
  @IsArray()
  @ArrayMaxSize(20)
  @ArrayUnique()
  @Matches(ORIGIN, { each: true })
  origins: string[];
}

export class NewFormLinkBody extends FormLinkBody {
  @IsUUID()
  clientId: string;
}

export const FORM_LINK_CHANGES = ['renew', 'close'] as const;

/** Either way the link that was given out opens nothing any more. */
export class ChangeFormLinkBody {
  @IsIn(FORM_LINK_CHANGES)
  change: (typeof FORM_LINK_CHANGES)[number];
}

export class FormLinkMadeShape {
  linkId: string;
}

/** Which facts the brief of a format needs. */
export class FormatNeedsBody {
  @IsArray()
  @ArrayUnique()
  @IsIn(BRIEF_FACTS, { each: true })
  needs: BriefFact[];
}

export class FormRow {
  id: string;
  title: string;
  clientIds: string[];
  /** the version that is asked; null before the first is published */
  publishedVersion: number | null;
  hasDraft: boolean;
  isArchived: boolean;
  /** whether new clients begin with it */
  isDefault: boolean;
  openLinks: number;
  requests: number;
}

/** What the brief of a format needs. */
export class FormatNeedsShape {
  formatId: string;
  name: string;
  needs: BriefFact[];
}

export class FormPage {
  items: FormRow[];
  nextCursor: string | null;
  canEdit: boolean;
  /** names of the starting forms */
  stock: string[];
  /** what the briefs of the formats need */
  formats: FormatNeedsShape[];
}

export class IntakeLinkShape {
  id: string;
  clientId: string;
  label: string;
  origins: string[];
  /** null once it is closed */
  address: string | null;
  /** how many requests came by it */
  requests: number;
}

export class FormVersionRow {
  number: number;
  publishedAt: string;
  publishedBy: string;
}

export class FormShape {
  id: string;
  clientIds: string[];
  /** what is being changed, else what is asked */
  content: FormContent;
  hasDraft: boolean;
  publishedVersion: number | null;
  faults: FoundFault[];
  versions: FormVersionRow[];
  links: IntakeLinkShape[];
  formats: FormatNeedsShape[];
  isArchived: boolean;
  canEdit: boolean;
  /** the version of the draft, for If-Match */
  version: number;
}

export class FormVersionShape extends FormVersionRow {
  content: FormContent;
}

/** A request to try the sorting rules on. */
export class TriedRequestShape {
  id: string;
  number: number;
  title: string;
  items: FormItem[];
  answers: Answers;
}
