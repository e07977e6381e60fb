import { forCandidates, type Endpoint } from '../http/endpoint';
import type { Services } from '../services';
import { makePdf } from './makePdf';
import { resultOf } from './operations';

export function resultEndpoints(services: Services): Endpoint[] {
  return [
    forCandidates({ method: 'get', path: '/result' }, (who) => resultOf(services, who.invitation)),
    forCandidates({ method: 'get', path: '/result.pdf' }, async (who, { response }) => {
      const sheet = resultOf(services, who.invitation);
      const bytes = await makePdf(sheet, services.config.organisation);
      const name = `result-${sheet.candidate.reference}.pdf`;
      response.attachment(name).type('application/pdf').send(Buffer.from(bytes));
    }),
  ];
}
