import { forCandidates, type Endpoint } from '../http/endpoint';
import type { Services } from '../services';
import { printedResult, resultRead } from './operations';

export function resultEndpoints(services: Services): Endpoint[] {
  return [
    forCandidates({ method: 'get', path: '/result' }, (who) => services.reader.read(resultRead, who)),
    forCandidates({ method: 'get', path: '/result.pdf' }, async (who, { response }) => {
      const { bytes, reference } = await printedResult(services, who);
      response.attachment(`result-${reference}.pdf`).type('application/pdf').send(Buffer.from(bytes));
    }),
  ];
}
