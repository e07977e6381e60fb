import { BarChart, LineChart, ScatterChart } from 'echarts/charts';
import { GridComponent, LegendComponent, MarkLineComponent, TooltipComponent } from 'echarts/components';
import * as echarts from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import { useEffect, useRef } from 'react';

echarts.use([
  BarChart,
  LineChart,
  ScatterChart,
  GridComponent,
  LegendComponent,
  MarkLineComponent,
  TooltipComponent,
  SVGRenderer,
]);

export const CHART_SOFT = '#52606d';
export const CHART_FONT = {
  fontFamily: 'Atkinson Hyperlegible Next Variable, sans-serif',
  fontSize: 14,
  color: CHART_SOFT,
};

export type ChartOptions = echarts.EChartsCoreOption;

/** A chart as a picture with words for it; what it shows stands in a table too, wherever it is used. */
export function EChart({
  options,
  label,
  className,
}: {
  options: ChartOptions;
  label: string;
  className: string;
}) {
  const place = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const chart = echarts.init(place.current, null, { renderer: 'svg' });
    chart.setOption(options);
    const watch = new ResizeObserver(() => chart.resize());
    watch.observe(place.current!);
    return () => {
      watch.disconnect();
      chart.dispose();
    };
  }, [options]);
  return (
    <div role="img" aria-label={label} className="w-full">
      <div ref={place} aria-hidden className={className} />
    </div>
  );
}
