import { FileInterceptor } from '@nestjs/platform-express';
import type { Type, NestInterceptor } from '@nestjs/common';
import { memoryStorage } from 'multer';
import { UPLOAD_LIMIT_BYTES } from '../../platform/files/files.js';
import { Problem } from '../../platform/http/problem.js';
import type { Upload } from './use-cases/add-file.js';

/** Takes one file named `file` from a multipart body, within the upload limit. */
export const OneFile = (): Type<NestInterceptor> =>
  FileInterceptor('file', { storage: memoryStorage(), limits: { fileSize: UPLOAD_LIMIT_BYTES, files: 1, fields: 5 } });

/** The upload of a request; browsers send names as UTF-8, which multer reads as Latin-1. */
export function uploadOf(file: Express.Multer.File | undefined): Upload {
  if (!file) throw Problem.of('file.missing');
  return { name: Buffer.from(file.originalname, 'latin1').toString('utf8'), bytes: file.buffer };
}
