import Joi from 'joi';
import { objectOf } from '../../core/validation/shapes';
import type { PasswordChange } from '../../core/accounts/api';
import { roles, type StaffMember } from '../../core/rounds/api';
import { forAnyone, forStaff, idParams, type Endpoint } from '../http/endpoint';
import { notSignedIn } from '../http/errors';
import { perMinute } from '../http/limits';
import { changePassword, endSessions, setDisabled, staffAccounts } from './operations';
import { newPassword, PasswordCheck } from './passwords';
import { SignIn } from './signIn';
import type { HasDb } from '../db/open';
import type { HasSecret } from '../db/serverSecret';
import type { HasSessions } from '../http/sessions';
import type { HasClock } from '../machine/clock';

/** What is needed here of the server. */
interface Needs extends HasClock, HasDb, HasSessions, HasSecret {}

const signInBody = objectOf<{ email: string; password: string }>({
  email: Joi.string().max(200),
  password: Joi.string().max(200),
});
const passwordBody = objectOf<PasswordChange>({
  current: Joi.string().max(200),
  wanted: newPassword,
});
const disabledBody = objectOf<{ disabled: boolean }>({ disabled: Joi.boolean() });
const nothing = Joi.object({});
/** An address and a password. */
const SIGN_IN_LIMIT_KB = 2;
/** Changes of one's own password, right or wrong. */
const CHANGES_A_MINUTE = 5;

export function accountEndpoints(services: Needs): Endpoint[] {
  const { sessions } = services;
  const passwords = new PasswordCheck();
  const signIn = new SignIn(services, passwords);
  const countChange = perMinute(CHANGES_A_MINUTE, 'tooManyChanges');
  return [
    forAnyone(
      {
        method: 'post',
        path: '/sign-in',
        body: signInBody,
        limitKb: SIGN_IN_LIMIT_KB,
        count: (request) => signIn.countRequestOf(request, sessions.deviceOf(request)),
      },
      async ({ body, request, response }): Promise<StaffMember> => {
        const { member, device } = await signIn.check(request, body, sessions.deviceOf(request));
        sessions.openForStaff(request, response, member.id);
        sessions.giveDevice(response, device);
        return { name: member.name, roles: member.roles };
      },
    ),
    forAnyone({ method: 'post', path: '/sign-out', body: nothing }, ({ request, response }) => {
      sessions.closeForStaff(request, response);
      return {};
    }),
    forAnyone({ method: 'get', path: '/me' }, ({ request }): StaffMember => {
      const who = sessions.staffOf(request);
      if (!who) throw notSignedIn();
      return { name: who.name, roles: who.roles };
    }),
    forStaff(
      roles,
      {
        method: 'post',
        path: '/me/password',
        body: passwordBody,
        count: (_, who) => countChange(String(who.id)),
      },
      async (who, { body, request }) => {
        await changePassword(
          services,
          passwords,
          { staffId: who.id, keep: sessions.staffHash(request) },
          body,
        );
        return {};
      },
    ),
    forStaff(roles, { method: 'post', path: '/me/end-other-sessions', body: nothing }, (who, { request }) => {
      endSessions(services, who.id, { staffId: who.id, keep: sessions.staffHash(request) });
      return {};
    }),
    forStaff(['coordinator'], { method: 'get', path: '/staff-accounts' }, (who) =>
      staffAccounts(services, who.id),
    ),
    forStaff(
      ['coordinator'],
      { method: 'post', path: '/staff-accounts/:id/disabled', params: idParams, body: disabledBody },
      (who, { params, body }) => {
        setDisabled(services, who.id, { staffId: params.id, ...body });
        return staffAccounts(services, who.id);
      },
    ),
    forStaff(
      ['coordinator'],
      { method: 'post', path: '/staff-accounts/:id/end-sessions', params: idParams, body: nothing },
      (who, { params }) => {
        endSessions(services, who.id, { staffId: params.id, keep: null });
        return staffAccounts(services, who.id);
      },
    ),
  ];
}
