import { expect, it } from 'vitest';
import { simulationReport } from '../core/adaptive/report';
import { adaptiveViews } from '../core/papers/adaptiveApi';
import { calibratedReading } from './calibrateReading';
import { readingCalibration } from './items/readingCalibration';
import { readingPaper } from './readingPaper';

it('the figures of the reading pool are those that its calibration prints', () =>
  expect(calibratedReading()).toEqual(readingCalibration));

it('the reading section finds abilities within its target, and keeps its limits', () => {
  const [view] = adaptiveViews(readingPaper());
  const { figures, groups } = simulationReport(view!);
  const { targetError, exposureLimit, greatestLength } = view!.rules;
  expect(Math.abs(figures.bias)).toBeLessThanOrEqual(0.05);
  expect(figures.rmse).toBeLessThanOrEqual(targetError * 1.1);
  expect(figures.mostExposed).toBeLessThanOrEqual(exposureLimit + 0.005);
  expect(figures.longest).toBeLessThanOrEqual(greatestLength);
  for (const { rmse } of groups) expect(rmse).toBeLessThanOrEqual(targetError * 1.1);
});
