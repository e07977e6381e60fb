import { words } from '../../words';

export const t = words('sortAnswer', {
  how: 'Press an entry, then the bin where it belongs. Or drag the entry.',
  howSource:
    'Press a marked phrase in the source or an entry here, then the bin where it belongs. Or drag it there.',
  chips: 'Entries',
  none: 'All entries are placed.',
  take: 'Select “{{text}}”',
  takeFrom: '“{{text}}” in {{bin}}: select it again',
  drag: 'Drag “{{text}}”',
  remove: 'Remove “{{text}}” from {{bin}}',
  putHere: 'Put here',
  putInto: 'Put “{{text}}” into {{bin}}',
  held: 'Selected: {{text}}',
  letGoButton: 'Cancel',
  of: '{{inside}} of {{limit}}',
  room: '{{inside}} of {{limit}} are in it.',
  empty: 'empty',
  taken:
    '“{{text}}” is selected. Choose its bin with the arrow keys and Enter, or press the bin. Press Esc to cancel.',
  over: '“{{text}}”: over {{bin}}, {{place}} of {{all}}.',
  put: '“{{text}}” is put into {{bin}}.',
  removed: '“{{text}}” is removed.',
  letGo: '“{{text}}” is no longer selected.',
  full_one: '“{{text}}” takes only {{count}}. Remove it first.',
  full_other: '“{{text}}” takes only {{count}}. Remove one first.',
});
