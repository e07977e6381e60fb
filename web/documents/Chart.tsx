import { ChartLine, Table2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import { chartFigure, chartValues } from '../../core/documents/chartValues';
import type { ChartNode } from '../../core/documents/document';
import type { NodeProps } from './nodeProps';
import { CHART_FONT as FONT, EChart, type ChartOptions } from '../charts/EChart';
import { t } from './words';

/** Told apart by the shape of their points and the pattern of their lines as well as by colour. */
const SERIES = [
  { color: '#12564f', symbol: 'circle', dash: 'solid' },
  { color: '#8a5000', symbol: 'rect', dash: [7, 4] },
  { color: '#2f5d8c', symbol: 'triangle', dash: [2, 3] },
  { color: '#a63d2f', symbol: 'diamond', dash: [10, 3, 2, 3] },
  { color: '#33475b', symbol: 'emptyCircle', dash: [4, 4] },
  { color: '#6b4c86', symbol: 'emptyRect', dash: [12, 4] },
  { color: '#52606d', symbol: 'emptyTriangle', dash: [1, 4] },
  { color: '#0c403b', symbol: 'emptyDiamond', dash: [8, 2] },
] as const;

function optionsOf({ chart, across, up, table }: ChartNode): ChartOptions {
  const { categories, series } = chartValues(table);
  const type = chart === 'points' ? 'scatter' : chart;
  const axis = { nameLocation: 'middle', nameTextStyle: FONT, axisLabel: FONT };
  return {
    animation: false,
    textStyle: FONT,
    legend: { show: series.length > 1, top: 0, itemWidth: 34, textStyle: { ...FONT, color: '#1b2733' } },
    tooltip: { trigger: chart === 'points' ? 'item' : 'axis', textStyle: FONT },
    // Room for the figures and the names of the axes as well.
    grid: {
      top: series.length > 1 ? 40 : 12,
      left: 4,
      right: 16,
      bottom: 4,
      outerBoundsMode: 'same',
      outerBoundsContain: 'all',
    },
    xAxis:
      chart === 'points'
        ? { ...axis, type: 'value', name: across, nameGap: 30, scale: true }
        : { ...axis, type: 'category', name: across, nameGap: 30, data: categories },
    yAxis: { ...axis, type: 'value', name: up, nameGap: 46, splitLine: { lineStyle: { color: '#ddd9ce' } } },
    series: series.map(({ name, values }, i) => {
      const { color, symbol, dash } = SERIES[i % SERIES.length]!;
      return {
        type,
        name,
        color,
        symbol,
        symbolSize: 9,
        lineStyle: { width: 2.5, type: dash },
        itemStyle:
          type === 'bar' ? { color, decal: i === 0 ? undefined : DECALS[(i - 1) % DECALS.length] } : {},
        data: chart === 'points' ? values.map((value, k) => [chartFigure(categories[k]!), value]) : values,
      };
    }),
  };
}

const DECALS = [
  { symbol: 'rect', dashArrayX: [1, 0], dashArrayY: [3, 5], rotation: -Math.PI / 4, color: '#ffffff88' },
  {
    symbol: 'circle',
    symbolSize: 0.7,
    dashArrayX: [
      [6, 6],
      [0, 6, 6, 0],
    ],
    dashArrayY: [6, 0],
    color: '#ffffffaa',
  },
  { symbol: 'rect', dashArrayX: [2, 6], dashArrayY: [1, 0], color: '#ffffff88' },
];

function Drawing({ node }: { readonly node: ChartNode }) {
  const options = useMemo(() => optionsOf(node), [node]);
  return (
    <EChart options={options} label={`${node.title}. ${node.description}`} className="h-[19rem] w-full" />
  );
}

/** A chart drawn from its table (`children`), which is one press away. */
export function Chart({ node, children }: NodeProps<ChartNode>) {
  const [asTable, setAsTable] = useState(false);
  const Icon = asTable ? ChartLine : Table2;
  return (
    <figure className="mb-3 font-sans last:mb-0">
      <figcaption className="mb-1 flex flex-wrap items-center gap-x-3 text-[0.95em]">
        <span className="min-w-0 flex-1 font-semibold">{node.title}</span>
        <button
          type="button"
          onClick={() => setAsTable(!asTable)}
          className="inline-flex min-h-9 items-center gap-1.5 rounded-control px-1.5 text-[0.9em] text-slate hover:bg-shade"
        >
          <Icon aria-hidden className="size-4" /> {t(asTable ? 'showChart' : 'showTable')}
        </button>
      </figcaption>
      {asTable ? children : <Drawing node={node} />}
    </figure>
  );
}
