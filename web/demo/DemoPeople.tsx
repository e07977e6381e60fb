import { useNavigate } from 'react-router';
import type { DemoCandidate, DemoMember, DemoPage } from '../../core/demo/api';
import { post } from '../api/client';
import { Notice } from '../ui/Notice';
import { useAction } from '../ui/useAsync';
import { t } from './words';
import { PageHeading } from '../ui/PageHeading';

const PRESS =
  'flex w-full flex-wrap items-baseline justify-between gap-x-3 rounded-control border border-line bg-card px-3.5 py-2.5 text-left hover:border-edge';

/** The people of the demo, one press each, and what to try first. */
export function DemoPeople({ page }: { readonly page: DemoPage }) {
  const navigate = useNavigate();
  const { busy, trouble, run } = useAction();
  const be = ({ email, round }: DemoCandidate) =>
    run(async () => {
      const { link } = await post<{ link: string }>('/demo/candidate', { email, round });
      await navigate(`/i/${link}`);
    });
  const work = ({ email }: DemoMember) =>
    run(async () => {
      await post('/demo/staff', { email });
      await navigate('/staff');
    });
  return (
    <div className="mx-auto max-w-[1010px]">
      <PageHeading className="font-serif text-[1.9rem] leading-tight font-semibold">{t('title')}</PageHeading>
      <p className="mt-2 mb-5 max-w-[44rem]">{t('text')}</p>
      {trouble && <Notice tone="trouble">{trouble}</Notice>}
      <h2 className="mb-2 font-semibold">{t('tries')}</h2>
      <ol className="mb-6 max-w-[52rem] list-decimal space-y-1 pl-5">
        {page.suggestions.map((one) => (
          <li key={one}>{one}</li>
        ))}
      </ol>
      <div className="grid gap-x-8 gap-y-6 desk:grid-cols-[3fr_2fr]">
        <section aria-labelledby="demo-candidates">
          <h2 id="demo-candidates" className="mb-2 font-semibold">
            {t('candidates')}
          </h2>
          <ul className="space-y-2">
            {page.candidates.map((one) => (
              <li key={`${one.email} ${one.round}`}>
                <button type="button" disabled={busy} className={PRESS} onClick={() => void be(one)}>
                  <b>{one.name}</b>
                  <span className="text-[0.92rem] text-soft">{one.good}</span>
                </button>
              </li>
            ))}
          </ul>
        </section>
        <section aria-labelledby="demo-staff">
          <h2 id="demo-staff" className="mb-2 font-semibold">
            {t('staff')}
          </h2>
          <ul className="space-y-2">
            {page.staff.map((one) => (
              <li key={one.email}>
                <button type="button" disabled={busy} className={PRESS} onClick={() => void work(one)}>
                  <b>{one.name}</b>
                  <span className="text-[0.92rem] text-soft">
                    {one.roles.map((role) => t(role)).join(', ')}
                  </span>
                </button>
              </li>
            ))}
          </ul>
        </section>
      </div>
    </div>
  );
}
