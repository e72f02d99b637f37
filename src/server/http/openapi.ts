import { z } from 'zod';
import { errorBody } from '@/contract/errors.ts';
import type { Route } from '@/contract/route.ts';
import { ROUTES } from '@/contract/routes.ts';

const schemaOf = (schema: z.ZodType, io: 'input' | 'output') =>
  z.toJSONSchema(schema, { io, unrepresentable: 'any', target: 'openapi-3.0' });

/** It says the same as long as the program runs. */
let text: string | null = null;

/** The OpenAPI description of every route, made from the contract. */
export function openApiText(): string {
  text ??= JSON.stringify(openApi());
  return text;
}

function openApi(): object {
  const paths: Record<string, Record<string, object>> = {};
  for (const [name, route] of Object.entries(ROUTES) as [string, Route][]) {
    const parameters = [
      ...[...route.path.matchAll(/\{(\w+)\}/g)].map((m) => ({
        name: m[1],
        in: 'path',
        required: true,
        schema: { type: 'string' },
      })),
      ...queryParameters(route),
    ];
    const bodySchema = route.body ? schemaOf(route.body, 'input') : { type: 'string' };
    const hasBody = route.body ?? route.rawBody;
    paths[route.path] ??= {};
    (paths[route.path] as Record<string, object>)[route.method.toLowerCase()] = {
      operationId: name,
      summary: route.summary,
      security:
        route.who !== 'person' ? [] : route.by === 'session' ? [{ session: [] }] : [{ session: [] }, { token: [] }],
      parameters,
      ...(hasBody
        ? {
            requestBody: { required: true, content: { [route.rawBody ?? 'application/json']: { schema: bodySchema } } },
          }
        : {}),
      responses: {
        200: {
          description: 'Done',
          content: {
            [route.rawAnswer ?? 'application/json']: {
              schema: route.answer ? schemaOf(route.answer, 'output') : { type: 'string' },
            },
          },
        },
        default: {
          description: 'Refused, with a sentence',
          content: { 'application/json': { schema: schemaOf(errorBody, 'output') } },
        },
      },
    };
  }
  return {
    openapi: '3.0.3',
    info: { title: 'Paramo', version: '1', license: { name: 'Apache-2.0', identifier: 'Apache-2.0' } },
    paths,
    components: {
      securitySchemes: {
        session: { type: 'apiKey', in: 'cookie', name: 'paramo.session_token' },
        token: { type: 'http', scheme: 'bearer' },
      },
    },
  };
}

function queryParameters(route: Route): object[] {
  if (!route.query) return [];
  const schema = schemaOf(route.query, 'input') as { properties?: Record<string, object>; required?: string[] };
  return Object.entries(schema.properties ?? {}).map(([name, s]) => ({
    name,
    in: 'query',
    required: schema.required?.includes(name) ?? false,
    schema: s,
  }));
}
