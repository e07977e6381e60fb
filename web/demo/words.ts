import { words } from '../words';

export const t = words('demo', {
  title: 'This is a demo',
  text: 'All people here are made up. Press a name to see Clear Sitting as that person. Nothing that you do here reaches anybody.',
  candidates: 'Candidates',
  staff: 'Staff',
  tries: 'What to try first',
  coordinator: 'coordinator',
  assessor: 'assessor',
  lead: 'lead assessor',
  invigilator: 'invigilator',
});
