import type { Endpoint } from '../http/endpoint';
import type { Outbox } from '../mail/outbox';
import { assessorEndpoints, type AssessorNeeds } from './assessorRoutes';
import { leadEndpoints, type LeadNeeds } from './leadRoutes';

export const markingEndpoints = (services: AssessorNeeds & LeadNeeds, outbox: Outbox): Endpoint[] => [
  ...assessorEndpoints(services),
  ...leadEndpoints(services, outbox),
];
