import { useEffect, useRef, useState } from 'react';
import { groupsFrom, SIMULATED, type SimulationReport } from '../../core/adaptive/report';
import type { AdaptiveView } from '../../core/papers/adaptiveApi';
import { Button } from '../ui/Button';
import { Card } from '../ui/Card';
import { Notice } from '../ui/Notice';
import { t } from './words';

type State =
  | { readonly at: 'start' | 'running' | 'trouble' }
  | { readonly at: 'done'; readonly report: SimulationReport };

const SIMULATED_SHOWN = new Intl.NumberFormat('en').format(SIMULATED);
const places = (figure: number): string => figure.toFixed(2).replace('-', '−');
const perCent = (share: number): string => `${(share * 100).toFixed(0)} %`;

function Report({ report, rules }: { readonly report: SimulationReport } & Pick<AdaptiveView, 'rules'>) {
  const { figures, groups } = report;
  const rows: readonly (readonly [name: string, figure: string, beside?: string])[] = [
    [t('length'), figures.meanLength.toFixed(1)],
    [t('longest'), String(figures.longest), t('limitIs', { limit: rules.greatestLength })],
    [t('meanError'), places(figures.meanError), t('targetIs', { target: rules.targetError })],
    [t('bias'), places(figures.bias)],
    [t('rmse'), places(figures.rmse)],
    [t('mostExposed'), perCent(figures.mostExposed), t('limitIs', { limit: perCent(rules.exposureLimit) })],
    [t('exposureRelaxed'), perCent(figures.exposureRelaxed)],
    [t('topicsRelaxed'), perCent(figures.topicsRelaxed)],
  ];
  return (
    <>
      <table className="mt-3 w-full text-[0.92rem]">
        <tbody>
          {rows.map(([name, figure, beside]) => (
            <tr key={name} className="border-b border-line/70 align-top last:border-0">
              <th scope="row" className="py-1 pr-2 text-left font-normal">
                {name}
              </th>
              <td className="py-1 text-right whitespace-nowrap">
                <b>{figure}</b>
                {beside && <span className="block text-[0.82rem] text-soft">{beside}</span>}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <table className="mt-3 w-full text-[0.92rem]">
        <thead>
          <tr className="border-b border-line text-soft">
            <th scope="col" className="py-1 text-left font-normal">
              {t('abilities')}
            </th>
            {[t('groupLength'), t('groupBias'), t('groupRmse')].map((title) => (
              <th key={title} scope="col" className="py-1 text-right font-normal">
                {title}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {groups.map((group, i) => (
            <tr key={groupsFrom[i]} className="border-b border-line/70 last:border-0">
              <th scope="row" className="py-1 text-left font-normal">
                {t('fromTo', {
                  from: String(groupsFrom[i]).replace('-', '−'),
                  to: String(groupsFrom[i]! + 1).replace('-', '−'),
                })}
              </th>
              {[group.meanLength.toFixed(1), places(group.bias), places(group.rmse)].map((figure, k) => (
                <td key={k} className="py-1 text-right">
                  {figure}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}

/** What simulated candidates would get, at a press, worked out beside the page. */
export function Simulation({ section }: { readonly section: AdaptiveView }) {
  const [state, setState] = useState<State>({ at: 'start' });
  const worker = useRef<Worker>(null);
  const end = () => {
    worker.current?.terminate();
    worker.current = null;
  };
  useEffect(() => end, []);
  const simulate = () => {
    end();
    setState({ at: 'running' });
    const own = new Worker(new URL('./simulationWorker.ts', import.meta.url), { type: 'module' });
    worker.current = own;
    const settle = (found: State) => {
      if (worker.current !== own) return;
      end();
      setState(found);
    };
    own.onmessage = ({ data }: MessageEvent<SimulationReport>) => settle({ at: 'done', report: data });
    own.onerror = () => settle({ at: 'trouble' });
    own.postMessage({ pool: section.pool, rules: section.rules });
  };
  return (
    <Card title={t('simulation')}>
      <p className="mb-2 text-[0.92rem] text-soft">{t('simulationText', { n: SIMULATED_SHOWN })}</p>
      <Button disabled={state.at === 'running'} onClick={simulate}>
        {state.at === 'running' ? t('simulating') : t('simulate', { n: SIMULATED_SHOWN })}
      </Button>
      <div role="status">
        {state.at === 'trouble' && <Notice tone="trouble">{t('simulationFailed')}</Notice>}
        {state.at === 'done' && <Report report={state.report} rules={section.rules} />}
      </div>
    </Card>
  );
}
