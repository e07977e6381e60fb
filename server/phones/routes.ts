import Joi from 'joi';
import type { Request } from 'express';
import { objectOf, oneOf, textOf } from '../../core/validation/shapes';
import { MOST_PAGE_BYTES, pageTypes, type Page } from '../../core/files/pages';
import { forAnyone, forCandidates, type Endpoint } from '../http/endpoint';
import { networkOf, perMinute } from '../http/limits';
import { pagePart, partOfPage, partOfPageParams } from '../sittings/pageRoutes';
import { phoneEnded, type Phones } from './phones';

const openBody = objectOf<{ target: string }>({
  target: Joi.string().pattern(/^[a-z0-9-]{1,40}\/[A-F]$/),
});
const joinBody = objectOf<{ code: string }>({ code: textOf(20, 4) });
const pageBody = objectOf<Page>({
  hash: Joi.string().pattern(/^[0-9a-f]{64}$/),
  bytes: Joi.number().integer().min(1).max(MOST_PAGE_BYTES),
  type: oneOf(pageTypes),
  turn: oneOf([0, 90, 180, 270]),
});

const OPENED_A_MINUTE = 12;
/** Secrets that were never given, from one network: as of codes that are out of date. */
const GUESSES_A_MINUTE = 120;

/** Codes that were typed in one network, where many sit a test together. */
const CODES_A_MINUTE = 60;

/** The secret of the QR code comes in a header, so that it stands in no log. */
const secretOf = (request: Request): string => request.get('X-Phone') ?? '';

export function phoneEndpoints(phones: Phones): Endpoint[] {
  const countOpened = perMinute(OPENED_A_MINUTE, 'tooManyPhones');
  const countGuess = perMinute(GUESSES_A_MINUTE, 'tooManyPhones');
  const countCode = perMinute(CODES_A_MINUTE, 'tooManyPhones');
  const count = async (request: Request) => {
    if (phones.isKnown(secretOf(request))) return;
    await countGuess(networkOf(request));
    throw phoneEnded();
  };
  return [
    forCandidates({ method: 'post', path: '/sitting/phone', body: openBody }, async (who, { body }) => {
      await countOpened(String(who.invitation));
      return phones.open(who.invitation, body.target);
    }),
    forCandidates({ method: 'post', path: '/sitting/phone/end', body: Joi.object({}) }, async (who) => {
      await phones.end(who.invitation);
      return {};
    }),
    forAnyone(
      {
        method: 'post',
        path: '/phone/join',
        body: joinBody,
        count: (request: Request) => countCode(networkOf(request)),
      },
      ({ body }) => phones.join(body.code),
    ),
    forAnyone({ method: 'get', path: '/phone', count }, ({ request }) => phones.view(secretOf(request))),
    forAnyone({ method: 'post', path: '/phone/pages', body: pageBody, count }, async ({ request, body }) => {
      await phones.announce(secretOf(request), body);
      return {};
    }),
    forAnyone(
      {
        method: 'put',
        path: '/phone/pages/:hash/:of/:from',
        params: partOfPageParams,
        body: pagePart,
        count,
      },
      ({ request, params, body }) => phones.take(secretOf(request), partOfPage(params, body)),
    ),
  ];
}
