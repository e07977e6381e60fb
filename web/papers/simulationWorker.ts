import { simulationReport, type Prepared } from '../../core/adaptive/report';

/* Simulates an adaptive section beside the page; one section, then it is ended. */
self.onmessage = ({ data }: MessageEvent<Prepared>) => self.postMessage(simulationReport(data));
