import Joi from 'joi';
import { objectOf } from '../../core/validation/shapes';
import { filesIn } from '../../core/documents/filesIn';
import { candidateKindOf } from '../../core/kinds/candidateKindOf';
import { forCandidates, forRoundStaff, idParams, type Endpoint } from '../http/endpoint';
import { notFound } from '../http/errors';
import type { Outbox } from '../mail/outbox';
import { sendRemarkFile } from '../marking/remarkFile';
import { fileParams, sendFile } from '../media/sendFile';
import { listEndpoints } from '../reading/listEndpoints';
import { sendPage } from '../uploads/sendPage';
import { isBlind } from './blindness';
import { answerCheck, askForCheck, checksIn, checksOf, type CheckAnswer } from './checks';
import { resultRead } from './operations';
import { beginPack, cancelPack, packFile, packsOf } from './packs';
import { printedResult, printSheetOf } from './printed';
import { distributionRead, resultsList, staffSheetRead } from './reads';
import type { HasConfig } from '../config';
import type { HasCommits } from '../db/groupCommit';
import type { HasDb } from '../db/open';
import type { HasFiles } from '../files/files';
import type { HasSessions } from '../http/sessions';
import type { HasJobs } from '../jobs/jobQueue';
import type { HasClock } from '../machine/clock';
import type { HasPrinter } from '../printing/printer';
import type { HasReader } from '../reading/reader';
import type { HasUploads } from '../uploads/uploads';

/** What is needed here of the server. */
interface Needs
  extends
    HasConfig,
    HasClock,
    HasDb,
    HasCommits,
    HasSessions,
    HasFiles,
    HasUploads,
    HasReader,
    HasPrinter,
    HasJobs {}

/** An act that its address says all of. */
const nothing = Joi.object({});
const reason = Joi.string().trim().min(2).max(2000).required();
const id = Joi.number().integer().min(1).required();
const askBody = objectOf<{ reason: string }>({ reason });
const answerBody = objectOf<CheckAnswer>({ id, answer: reason, changed: Joi.boolean() });
const candidateParams = objectOf<{ round: number; invitation: number }>({ round: id, invitation: id });
const candidatePageParams = candidateParams.append({
  hash: Joi.string()
    .pattern(/^[0-9a-f]{64}$/)
    .required(),
}) as Joi.ObjectSchema<{ round: number; invitation: number; hash: string }>;
const attemptParams = objectOf<{ attempt: number }>({ attempt: Joi.number().integer().min(1).max(100) });
const packParams = objectOf<{ round: number; pack: number }>({ round: id, pack: id });

const readers = ['coordinator', 'lead'] as const;

function candidateEndpoints(services: Needs): Endpoint[] {
  const sheetOf = async ({ invitation }: { readonly invitation: number }, attempt: number | null = null) =>
    (await services.reader.read(resultRead, { invitation, attempt })).sheet;
  /** On the sheet of the result, or on that of one of several attempts. */
  const isOnSheets = async (who: { readonly invitation: number }, file: string): Promise<boolean> => {
    const sheet = await sheetOf(who);
    if (filesIn(sheet).has(file)) return true;
    for (const { attempt } of sheet.attempts) if (filesIn(await sheetOf(who, attempt)).has(file)) return true;
    return false;
  };
  return [
    forCandidates({ method: 'get', path: '/result' }, (who) => sheetOf(who)),
    forCandidates(
      { method: 'get', path: '/result/attempts/:attempt', params: attemptParams },
      (who, { params }) => sheetOf(who, params.attempt),
    ),
    forCandidates({ method: 'get', path: '/result.pdf' }, async (who, { response }) => {
      const { bytes, reference } = await printedResult(services, who);
      response.attachment(`result-${reference}.pdf`).type('application/pdf').send(Buffer.from(bytes));
    }),
    // What is asked on the sheet that was released to them, and nothing else.
    forCandidates(
      { method: 'get', path: '/result-media/:file', params: fileParams },
      async (who, { params, response }) => {
        if (!(await isOnSheets(who, params.file))) throw notFound('noFile');
        sendFile(services, params.file, response);
      },
    ),
    forCandidates(
      { method: 'get', path: '/result/remark/:file', params: fileParams },
      async (who, { params, response }) => {
        const sheet = await sheetOf(who);
        const others = sheet.attempts.map(({ attempt }) => sheetOf(who, attempt));
        const own = [sheet, ...(await Promise.all(others))].find(({ file }) => file?.hash === params.file);
        if (!own?.file) throw notFound('noFile');
        sendRemarkFile(services, own.file, response);
      },
    ),
    forCandidates({ method: 'get', path: '/result/checks' }, (who) => checksOf(services, who.invitation)),
    forCandidates({ method: 'post', path: '/result/checks', body: askBody }, (who, { body }) =>
      askForCheck(services, who.invitation, body.reason),
    ),
  ];
}

function staffEndpoints(services: Needs, outbox: Outbox): Endpoint[] {
  const { db, reader } = services;
  const sheetFor = (
    who: { readonly id: number },
    of: { readonly round: number; readonly invitation: number },
  ) => ({
    ...of,
    blind: isBlind(services, who.id, of.round),
  });
  return [
    ...listEndpoints(services, resultsList, '/rounds/:id/results', (path, answer) =>
      forRoundStaff(readers, { method: 'get', path, params: idParams }, (who, { params, request }) =>
        answer({ round: params.id, blind: isBlind(services, who.id, params.id) }, request),
      ),
    ),
    forRoundStaff(
      readers,
      { method: 'get', path: '/rounds/:id/distribution', params: idParams },
      (_, { params }) => reader.read(distributionRead, { round: params.id }),
    ),
    forRoundStaff(
      readers,
      { method: 'get', path: '/rounds/:round/results/:invitation', params: candidateParams },
      async (who, { params }) => {
        const { sitting: _sitting, ...shown } = await reader.read(staffSheetRead, sheetFor(who, params));
        return shown;
      },
    ),
    forRoundStaff(
      readers,
      { method: 'get', path: '/rounds/:round/results/:invitation/script.pdf', params: candidateParams },
      async (who, { params, response }) => {
        const bytes = await printSheetOf(services, sheetFor(who, params));
        if (!bytes) throw notFound('noScript');
        response
          .attachment(`script-${params.invitation}.pdf`)
          .type('application/pdf')
          .send(Buffer.from(bytes));
      },
    ),
    forRoundStaff(
      readers,
      { method: 'get', path: '/rounds/:round/results/:invitation/pages/:hash', params: candidatePageParams },
      async (who, { params, response }) => {
        const { sheet, sitting } = await reader.read(staffSheetRead, sheetFor(who, params));
        const parts = sheet.questions.flatMap((question) => question.parts);
        const named = parts.some(({ kind, response: given }) =>
          candidateKindOf(kind)
            .files(given)
            .some(({ hash }) => hash === params.hash),
        );
        if (!named) throw notFound('noPage');
        await sendPage(services, sitting, params.hash, response);
      },
    ),
    forRoundStaff(
      readers,
      { method: 'get', path: '/rounds/:round/results/:invitation/remark/:hash', params: candidatePageParams },
      async (who, { params, response }) => {
        const { sheet } = await reader.read(staffSheetRead, sheetFor(who, params));
        if (sheet.file?.hash !== params.hash) throw notFound('noFile');
        sendRemarkFile(services, sheet.file, response);
      },
    ),
    forRoundStaff(readers, { method: 'get', path: '/rounds/:id/checks', params: idParams }, (_, { params }) =>
      checksIn(db, params.id),
    ),
    forRoundStaff(
      readers,
      { method: 'post', path: '/rounds/:id/checks', params: idParams, body: answerBody },
      (who, { params, body }) => {
        answerCheck(services, outbox, { staffId: who.id, round: params.id }, body);
        return checksIn(db, params.id);
      },
    ),
    forRoundStaff(
      ['coordinator'],
      { method: 'get', path: '/rounds/:id/packs', params: idParams },
      (_, { params }) => packsOf(services, params.id),
    ),
    forRoundStaff(
      ['coordinator'],
      { method: 'post', path: '/rounds/:id/packs', params: idParams, body: nothing },
      (who, { params }) => beginPack(services, who.id, params.id),
    ),
    forRoundStaff(
      ['coordinator'],
      { method: 'post', path: '/rounds/:round/packs/:pack/cancel', params: packParams, body: nothing },
      (_, { params }) => cancelPack(services, params.round, params.pack),
    ),
    forRoundStaff(
      ['coordinator'],
      { method: 'get', path: '/rounds/:round/packs/:pack/scripts.zip', params: packParams },
      (_, { params, response }) => {
        response.attachment(`scripts-${params.round}.zip`).type('application/zip');
        response.sendFile(packFile(services, params.round, params.pack), { dotfiles: 'allow' });
      },
    ),
  ];
}

export const resultEndpoints = (services: Needs, outbox: Outbox): Endpoint[] => [
  ...candidateEndpoints(services),
  ...staffEndpoints(services, outbox),
];
