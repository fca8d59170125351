import { applyDecorators } from '@nestjs/common';
import { ApiNoContentResponse, ApiOkResponse, ApiProduces } from '@nestjs/swagger';

/** Tells the API's description that a route answers bytes of these types, not JSON. */
export const AnswersBytes = (...types: readonly string[]): MethodDecorator =>
  applyDecorators(ApiProduces(...types), ApiOkResponse({ schema: { type: 'string', format: 'binary' } }));

/** Tells the API's description that a route speaks the tus protocol: all that it says is in the headers. */
export const SpeaksTus = (): MethodDecorator => applyDecorators(ApiNoContentResponse({ description: 'tus 1.0.0: see the headers' }));
