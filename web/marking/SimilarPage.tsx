import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { piecesOf } from '../../core/marking/notesInText';
import type { SimilarData, SimilarSide } from '../../core/marking/similarApi';
import { useFetched } from '../staff/queries';
import { Notice } from '../ui/Notice';
import { StaffPage } from '../ui/StaffPage';
import { perCent } from './figures';
import { t } from './words';

function Side({ side }: { readonly side: SimilarSide }) {
  const isProgram = side.form !== 'words';
  return (
    <section
      aria-label={t('script', { code: side.script })}
      className="min-w-0 flex-1 rounded-card border border-line bg-card p-4"
    >
      <h3 className="mb-2 font-mono font-semibold">{side.script}</h3>
      <p className={`whitespace-pre-wrap ${isProgram ? 'font-mono text-[0.85rem]' : 'font-serif'}`}>
        {piecesOf(side.text, 0, side.passages).map(({ text, under }, i) =>
          under.length === 0 ? (
            <span key={i}>{text}</span>
          ) : (
            <mark
              key={i}
              className="bg-[#ffe9a8] text-[#1b2733] underline decoration-[#b98500] decoration-2 underline-offset-4"
            >
              {text}
            </mark>
          ),
        )}
      </p>
    </section>
  );
}

function Pair({ path, scripts }: { readonly path: string; readonly scripts: readonly [string, string] }) {
  const [loaded] = useFetched<SimilarSide[]>(`${path}/similar/${scripts[0]}/${scripts[1]}`);
  if (loaded.state === 'loading') return <p className="text-soft">…</p>;
  if (loaded.state === 'trouble') return <Notice tone="trouble">{loaded.message}</Notice>;
  return (
    <div className="mt-3 flex flex-wrap gap-4">
      {loaded.value.map((side) => (
        <Side key={side.script} side={side} />
      ))}
    </div>
  );
}

/** Pairs of responses with unusual overlap, side by side for a person to judge. */
export function SimilarPage() {
  const { round = '', item = '', part = '' } = useParams();
  const path = `/marking/quality/${round}/${item}/${part}`;
  const [loaded] = useFetched<SimilarData>(`${path}/similar`);
  const [open, setOpen] = useState<string | null>(null);
  return (
    <StaffPage
      title={t('similar')}
      loaded={loaded}
      aside={
        <Link
          to={`/staff/quality/${round}/${item}/${part}`}
          className="text-slate underline underline-offset-4"
        >
          {t('quality')}
        </Link>
      }
    >
      {({ compared, pairs, base }) => (
        <>
          <p className="max-w-[70ch] pb-3 text-soft">
            {t('similarText', {
              count: compared,
              pairs: base.pairs,
              mean: perCent(base.mean),
              high: perCent(base.high),
            })}
          </p>
          {pairs.length === 0 && <p>{t('noSimilar')}</p>}
          <ul className="space-y-3">
            {pairs.map(({ scripts, overlap, shared, atLeast }) => {
              const name = scripts.join(' ');
              return (
                <li key={name} className="rounded-card border border-line bg-card px-4 py-2.5">
                  <button
                    type="button"
                    aria-expanded={open === name}
                    onClick={() => setOpen(open === name ? null : name)}
                    className="flex w-full flex-wrap items-center gap-x-6 text-left"
                  >
                    <span className="font-mono">{t('pair', { first: scripts[0], second: scripts[1] })}</span>
                    <b>{perCent(overlap)}</b>
                    <span className="text-soft">{t('sharedRuns', { count: shared })}</span>
                    <span className="text-soft">{t('atLeast', { count: atLeast, pairs: base.pairs })}</span>
                  </button>
                  {open === name && <Pair path={path} scripts={scripts} />}
                </li>
              );
            })}
          </ul>
        </>
      )}
    </StaffPage>
  );
}
