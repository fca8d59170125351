import { ArrayMaxSize, ArrayMinSize, ArrayUnique, IsArray, IsString, IsUUID, Matches, MaxLength } from 'class-validator';
import { IsNotBlank, Optional, OptionalOrNull, OrNull } from '../fields/index.js';
import { MONTH } from '../plan/bodies.js';

/** Branches of a pillar, many at once: topics, or subtopics of one. */
export class NewTopicsBody {
  @IsUUID()
  pillarId: string;

  /** the topic that they are subtopics of; null: they are topics */
  @OrNull()
  @IsUUID()
  parentId: string | null;

  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(200)
  @IsString({ each: true })
  @IsNotBlank({ each: true })
  @MaxLength(100, { each: true })
  names: string[];
}

export class EditTopicBody {
  @Optional()
  @IsString()
  @IsNotBlank()
  @MaxLength(100)
  name?: string;

  /** the months it is put into, `YYYY-MM` */
  @Optional()
  @IsArray()
  @ArrayMaxSize(36)
  @ArrayUnique()
  @Matches(MONTH, { each: true })
  months?: string[];
}

/** In which ways a client's subjects can be treated. */
export class TreatmentsBody {
  @IsArray()
  @ArrayMaxSize(12)
  @ArrayUnique((name: unknown) => String(name).trim().toLowerCase())
  @IsString({ each: true })
  @IsNotBlank({ each: true })
  @MaxLength(60, { each: true })
  names: string[];
}

/** An idea for one cell of the matrix. */
export class TopicIdeaBody {
  /** one of the client's treatments; null: none in particular */
  @OrNull()
  @IsString()
  @MaxLength(60)
  treatment: string | null;

  /** without one it is called by subject and treatment */
  @Optional()
  @IsString()
  @IsNotBlank()
  @MaxLength(200)
  title?: string;
}

/** What a piece or an idea is about; null takes it away. */
export class SubjectBody {
  @OrNull()
  @IsUUID()
  topicId: string | null;

  @OptionalOrNull()
  @IsString()
  @MaxLength(60)
  treatment?: string | null;
}
