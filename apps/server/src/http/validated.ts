import { Body, Param, Query, type PipeTransform } from '@nestjs/common';
import { ApiBody, ApiParam, ApiQuery, type ApiBodyOptions, type OpenAPIObject } from '@nestjs/swagger';
import { z } from 'zod';
import { parseBody } from './errors.ts';

// Arguments of routes: each is validated by a schema, which is also its documentation. The lint refuses the framework's
// own `@Body`, `@Query` and `@Param`, so that no route can read what was not validated.

type SchemaObject = Exclude<
  NonNullable<NonNullable<OpenAPIObject['components']>['schemas']>[string],
  { $ref: string }
>;

class SchemaPipe implements PipeTransform<unknown, unknown> {
  constructor(private readonly schema: z.ZodType) {}

  transform(value: unknown): unknown {
    return parseBody(this.schema, value);
  }
}

/** The body of a request. @throws ApiError 422 naming the field, its fault and the limit */
export const ValidBody = (schema: z.ZodType, options: ApiBodyOptions = {}): ParameterDecorator =>
  both(Body(new SchemaPipe(schema)), ApiBody({ schema: documented(schema), ...options }));

/** The whole query of an address. @throws ApiError 422 naming the field, its fault and the limit */
export const ValidQuery = (schema: z.ZodObject<Readonly<Record<string, z.ZodType>>>): ParameterDecorator =>
  both(
    Query(new SchemaPipe(schema)),
    ...Object.entries(schema.shape).map(([name, field]) =>
      ApiQuery({ name, required: !z.safeParse(field, undefined).success, schema: documented(field) }),
    ),
  );

/** One part of the path. @throws ApiError 422 naming the fault and the limit */
export const ValidParam = (name: string, schema: z.ZodType): ParameterDecorator =>
  both(Param(name, new SchemaPipe(schema)), ApiParam({ name, schema: documented(schema) }));

/** An id in the path: of a display, a member, an invitation; bounded, looked up by the service. */
export const PathId = (name = 'id'): ParameterDecorator => ValidParam(name, pathIdSchema);
const pathIdSchema = z.string().max(120);

/** Applies a parameter decorator and the documentation of its method. */
function both(argument: ParameterDecorator, ...documentation: MethodDecorator[]): ParameterDecorator {
  return (target, key, index) => {
    argument(target, key, index);
    const method = key === undefined ? undefined : Object.getOwnPropertyDescriptor(target, key);
    if (key !== undefined && method) for (const document of documentation) document(target, key, method);
  };
}

/** The schema of what a client sends, as OpenAPI 3.0 writes it. */
function documented(schema: z.core.$ZodType): SchemaObject {
  const json = z.toJSONSchema(schema, { target: 'openapi-3.0', io: 'input', unrepresentable: 'any' });
  if (!isOpenApi(json)) throw new TypeError('a schema has a list of types, which OpenAPI 3.0 has not');
  return json;
}
const isOpenApi = (json: object): json is SchemaObject => !('type' in json && Array.isArray(json.type));
