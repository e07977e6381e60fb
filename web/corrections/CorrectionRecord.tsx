import type { CorrectionRow } from '../../core/corrections/api';
import { showShort } from '../ui/times';
import { StaffTable } from '../ui/StaffPage';
import { CorrectionDialog } from './CorrectionDialog';
import { t } from './words';

const didOf = ({ change }: CorrectionRow): string => {
  if (change === null) return t('did take back');
  if (change.type === 'accept') return t('did accept', { answer: change.answer });
  return change.type === 'key' ? t('did key') : t(`did ${change.ruling}`);
};

interface Props {
  readonly path: string;
  readonly rows: readonly CorrectionRow[];
  readonly onDone: () => void;
}

/** What was corrected of a part, by whom, why, and what came of it. */
export function CorrectionRecord({ path, rows, onDone }: Props) {
  const stateOf = (row: CorrectionRow) => {
    if (row.finishedAt === null) return t('working', { done: row.done, of: row.of });
    if (row.change === null) return null;
    return t(row.stands ? 'stands' : 'gone');
  };
  return (
    <section aria-label={t('record')}>
      <h2 className="pb-2 font-serif text-[1.2rem] font-semibold">{t('record')}</h2>
      <StaffTable
        rows={rows}
        keyOf={(row) => row.id}
        empty={t('noRecord')}
        columns={[
          {
            head: t('what'),
            cell: (row) => (
              <>
                <span className="break-words">{didOf(row)}</span>
                <span className="block text-[0.88rem] text-soft">
                  {t('byOn', { by: row.by, when: showShort(row.at) })}
                </span>
              </>
            ),
          },
          {
            head: t('why'),
            cell: (row) => <span className="block min-w-48 break-words">{row.reason}</span>,
          },
          {
            head: t('effect'),
            cell: (row) =>
              row.finishedAt !== null &&
              `${t('effectMoved', { count: row.moved })} ${t('effectTold', { count: row.told })}`,
          },
          { head: t('state'), cell: (row) => <span role="status">{stateOf(row)}</span> },
          {
            head: t('takeBack'),
            cell: (row) =>
              row.stands && (
                <CorrectionDialog
                  act={t('takeBack')}
                  actLabel={t('takeBackOf', { what: didOf(row) })}
                  title={t('takeBackTitle')}
                  text={t('takeBackText')}
                  path={path}
                  change={{ type: 'take back', correction: row.id }}
                  onDone={onDone}
                />
              ),
          },
        ]}
      />
    </section>
  );
}
