import Joi from 'joi';
import { objectOf } from '../../core/validation/shapes';
import { MOST_PAGE_BYTES, PAGE_PART_BYTES } from '../../core/files/pages';
import { forCandidates, type Endpoint } from '../http/endpoint';
import { badRequest, notFound } from '../http/errors';
import { sendOwnPage } from '../uploads/sendPage';
import { pageOf } from '../uploads/uploads';
import type { PartOfPage, SittingPages } from './sittingPages';
import { sittingQueries } from './queries';
import type { HasDb } from '../db/open';
import type { HasFiles } from '../files/files';

const hash = Joi.string()
  .pattern(/^[0-9a-f]{64}$/)
  .required();
const size = Joi.string()
  .pattern(/^\d{1,8}$/)
  .required();

interface PartParams {
  readonly hash: string;
  /** How large the whole file is said to be, and where in it this part begins. */
  readonly of: string;
  readonly from: string;
}

export const partOfPageParams = objectOf<PartParams>({ hash, of: size, from: size });
/** A part of a page, with some room. */
export const pagePart = { type: 'application/octet-stream', limit: '300kb' } as const;
const ownPartParams = partOfPageParams.append({
  sitting: Joi.string()
    .pattern(/^[\w-]{8,60}$/)
    .required(),
}) as Joi.ObjectSchema<PartParams & { readonly sitting: string }>;
const pageParams = objectOf<{ hash: string }>({ hash });

/** Parts are as large as they can be: each costs a durable write, and nobody makes thousands of one page. */
export function partOfPage(params: PartParams, body: unknown): PartOfPage {
  const [of, from] = [Number(params.of), Number(params.from)];
  const whole = of >= 1 && of <= MOST_PAGE_BYTES && from < of && from % PAGE_PART_BYTES === 0;
  const length = Math.min(PAGE_PART_BYTES, of - from);
  if (!(body instanceof Uint8Array) || !whole || body.length !== length) throw badRequest('pageBroken');
  return { hash: params.hash, of, from, bytes: body };
}

/** Pages of a candidate's own answers: sent in parts, and looked at. */
export function pageEndpoints(services: HasDb & HasFiles, pages: SittingPages): Endpoint[] {
  const find = sittingQueries(services.db);
  return [
    forCandidates(
      {
        method: 'put',
        path: '/sitting/:sitting/pages/:hash/:of/:from',
        params: ownPartParams,
        body: pagePart,
      },
      ({ invitation }, { params, body }) => {
        // By its name: an attempt before this one may still have pages to come.
        const sitting = find.allOf(invitation).find((one) => one.deviceName === params.sitting);
        if (!sitting) throw notFound('noPage');
        return pages.take(sitting, partOfPage(params, body));
      },
    ),
    forCandidates(
      { method: 'get', path: '/sitting/pages/:hash', params: pageParams },
      ({ invitation }, { params, response }) => {
        const own = find.allOf(invitation).find(({ id }) => pageOf(services.db, id, params.hash));
        if (!own) throw notFound('noPage');
        sendOwnPage(services, own.id, params.hash, response);
      },
    ),
  ];
}
