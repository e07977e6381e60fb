import { forCandidates, type Endpoint } from '../http/endpoint';
import { filesIn } from '../../core/documents/filesIn';
import { notFound } from '../http/errors';
import { fileParams, sendFile } from '../media/sendFile';
import type { Services } from '../services';
import { printedResult, resultRead } from './operations';

export function resultEndpoints(services: Services): Endpoint[] {
  return [
    forCandidates({ method: 'get', path: '/result' }, (who) => services.reader.read(resultRead, who)),
    forCandidates({ method: 'get', path: '/result.pdf' }, async (who, { response }) => {
      const { bytes, reference } = await printedResult(services, who);
      response.attachment(`result-${reference}.pdf`).type('application/pdf').send(Buffer.from(bytes));
    }),
    // What is asked on the sheet that was released to them, and nothing else.
    forCandidates(
      { method: 'get', path: '/result-media/:file', params: fileParams },
      async (who, { params, response }) => {
        const sheet = await services.reader.read(resultRead, who);
        if (!filesIn(sheet).has(params.file)) throw notFound('noFile');
        sendFile(services, params.file, response);
      },
    ),
  ];
}
