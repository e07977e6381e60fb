import type { Request } from 'express';
import Joi from 'joi';
import { objectOf } from '../../core/validation/shapes';
import type { ListQuery } from '../../core/lists/list';
import type { Endpoint } from '../http/endpoint';
import { badRequest } from '../http/errors';
import { exportFormats, type ExportFormat } from './reader';
import type { Listing } from './read';
import type { HasReader } from './reader';

/** The name of an order, which lists look up in objects: none that every object of the language has. */
const word = Joi.string()
  .pattern(/^[a-zA-Z -]{0,40}$/)
  .invalid(...Object.getOwnPropertyNames(Object.prototype));
/** Any text: a filter may be the title of a band. The list refuses what it does not know. */
const filter = Joi.string().max(200);
const query = objectOf<ListQuery & { columns: string }>({
  search: Joi.string().trim().max(200).allow('').default(''),
  sort: word.allow('').default(''),
  descending: Joi.boolean().default(false),
  filter: filter.allow('').default(''),
  from: Joi.number().integer().min(0).max(10_000_000).default(0),
  size: Joi.number().integer().min(1).max(200).default(100),
  columns: Joi.string().max(500).allow('').default(''),
});

function queryOf(request: Request): ListQuery & { readonly columns: string } {
  const checked = query.validate(request.query);
  if (checked.error) throw badRequest('malformedParams', checked.error.message);
  return checked.value;
}

const TYPES: Record<ExportFormat, string> = {
  csv: 'text/csv; charset=utf-8',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
};
/** More rows than a round has candidates; a list that is longer says so, and is exported in pieces by its filters. */
const MOST_ROWS = 100_000;

type Make = (path: string, answer: (owner: unknown, request: Request) => unknown) => Endpoint;

/**
 * The three addresses of a list: a piece of it as JSON, and all of what is shown as CSV and as a workbook. `make` builds
 * an endpoint for those who may see it, and says whose list it is.
 */
export function listEndpoints<Owner, Row>(
  { reader }: HasReader,
  listing: Listing<Owner, Row>,
  path: string,
  make: Make,
): Endpoint[] {
  const file = (format: ExportFormat) =>
    make(`${path}.${format}`, async (owner, request) => {
      const { columns, ...asked } = queryOf(request);
      const bytes = await reader.export(listing, owner as Owner, {
        query: { ...asked, from: 0, size: MOST_ROWS },
        columns: columns.split(',').filter(Boolean),
        format,
      });
      request.res!.attachment(`${listing.name}.${format}`).type(TYPES[format]).send(Buffer.from(bytes));
    });
  return [
    make(path, (owner, request) => reader.list(listing, owner as Owner, queryOf(request))),
    ...exportFormats.map(file),
  ];
}
