/**
 * What the desk begins without, in one file: each by itself would be a request of its own for every candidate. What the
 * first view may need (the cover over the desk, a source) has its own.
 */
export { DirectionsDialog } from './DirectionsDialog';
export { LastLook } from './LastLook';
export { OpenAids } from './OpenAids';
export { RailSheet } from './RailSheet';
export { SectionDoor } from './SectionDoor';
export { TurnDialog } from './TurnDialog';
export { VersionsDialog } from './VersionsDialog';
