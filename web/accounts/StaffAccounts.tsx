import type { StaffAccount } from '../../core/accounts/api';
import { post } from '../api/client';
import { useFetched } from '../staff/queries';
import { Confirm } from '../ui/Confirm';
import { Notice } from '../ui/Notice';
import { Pill } from '../ui/Pill';
import { StaffPage, StaffTable } from '../ui/StaffPage';
import { showShort } from '../ui/times';
import { useAction } from '../ui/useAsync';
import { words } from '../words';

const t = words('staffAccounts', {
  title: 'Staff accounts',
  text: 'A disabled account cannot sign in. What its owner did stays on record under their name.',
  name: 'Name',
  email: 'E-mail',
  roles: 'Roles',
  'role coordinator': 'coordinator',
  'role assessor': 'assessor',
  'role lead': 'lead assessor',
  'role invigilator': 'invigilator',
  state: 'State',
  disabled: 'disabled since {{at}}',
  enabled: 'enabled',
  sessions: 'Signed in',
  sessionCount_one: 'in {{count}} browser',
  sessionCount_other: 'in {{count}} browsers',
  notSignedIn: 'no',
  acts: 'Actions',
  disable: 'Disable',
  disableTitle: 'Disable the account of {{name}}?',
  disableText:
    '{{name}} is signed out everywhere at once and cannot sign in. You can enable the account again.',
  enable: 'Enable',
  end: 'Sign out everywhere',
  endTitle: 'Sign {{name}} out everywhere?',
  endText: '{{name}} has to sign in again in every browser. Marks that are not saved yet are lost.',
  keep: 'Cancel',
  empty: 'There are no accounts.',
});

/** Accounts of the staff: who can sign in, and where they are signed in. */
export function StaffAccounts() {
  const [loaded, , replace] = useFetched<StaffAccount[]>('/staff-accounts');
  const { busy, trouble, run } = useAction();
  const act = async (account: StaffAccount, what: 'disabled' | 'end-sessions', body: object) =>
    replace(await post<StaffAccount[]>(`/staff-accounts/${account.id}/${what}`, body));
  const acts = (account: StaffAccount) => (
    <span className="flex flex-wrap justify-end gap-x-4">
      {account.sessions > 0 && (
        <Confirm
          quiet
          act={t('end')}
          title={t('endTitle', { name: account.name })}
          text={t('endText', { name: account.name })}
          keep={t('keep')}
          onAct={() => act(account, 'end-sessions', {})}
        />
      )}
      {account.disabledAt === null && !account.own && (
        <Confirm
          quiet
          act={t('disable')}
          title={t('disableTitle', { name: account.name })}
          text={t('disableText', { name: account.name })}
          keep={t('keep')}
          onAct={() => act(account, 'disabled', { disabled: true })}
        />
      )}
      {account.disabledAt !== null && (
        <button
          type="button"
          disabled={busy}
          onClick={() => void run(() => act(account, 'disabled', { disabled: false }))}
          className="min-h-8 text-[0.88rem] text-slate underline underline-offset-4"
        >
          {t('enable')}
        </button>
      )}
    </span>
  );
  return (
    <StaffPage title={t('title')} loaded={loaded}>
      {(accounts) => (
        <>
          <p className="mb-4 max-w-[70ch] text-soft">{t('text')}</p>
          {trouble && <Notice tone="trouble">{trouble}</Notice>}
          <StaffTable
            rows={accounts}
            keyOf={({ id }) => id}
            empty={t('empty')}
            columns={[
              { head: t('name'), cell: ({ name }) => <b>{name}</b> },
              { head: t('email'), cell: ({ email }) => email },
              { head: t('roles'), cell: ({ roles }) => roles.map((role) => t(`role ${role}`)).join(', ') },
              {
                head: t('state'),
                cell: ({ disabledAt }) =>
                  disabledAt === null ? (
                    t('enabled')
                  ) : (
                    <Pill tone="care">{t('disabled', { at: showShort(disabledAt) })}</Pill>
                  ),
              },
              {
                head: t('sessions'),
                cell: ({ sessions }) =>
                  sessions === 0 ? t('notSignedIn') : t('sessionCount', { count: sessions }),
              },
              { head: t('acts'), right: true, cell: acts },
            ]}
          />
        </>
      )}
    </StaffPage>
  );
}
