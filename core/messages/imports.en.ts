/** What is said of files that staff bring: papers and lists of people. */
export const messages = {
  empty: 'The file is empty.',
  notText: 'This file is not text in UTF-8. Save it as JSON in UTF-8 and try again.',
  notJson: 'This file is not JSON: {{problem}}',
  archive:
    'This ZIP cannot be unpacked, or it holds more than {{files}} files or {{megabytes}} MB. Remove what the paper does not need.',
  onePaper: 'A ZIP holds exactly one file that ends in .json; this one holds {{count}}.',
  fileBroken:
    'The file {{file}} cannot be read. Use JPEG, PNG or WebP for pictures, MP3, Ogg, WAV or M4A for sound, WebM or MP4 for film, WebVTT for captions, or PDF.',
  unusedFile: 'The file {{file}} is not used in the paper.',
  sameItem: 'Two items have the key {{key}}.',
  noName: 'There is no name.',
  noEmail: 'There is no e-mail address.',
  badEmail: '“{{email}}” is not an e-mail address.',
  badReference:
    '“{{reference}}” is not a reference: use capital letters, digits and hyphens, 3 to 20 of them.',
  badExtra: '“{{extra}}” is not an extra time in per cent from 0 to 200.',
  badBreaks: '“{{breaks}}” is not a number of minutes from 0 to 120.',
  badZone: '“{{zone}}” is not a time zone. Write it as in Europe/London.',
  twiceInFile: 'This address stands in line {{line}} already.',
  referenceTaken: 'The reference {{reference}} belongs to another address.',
  addressKnown: 'This address is known with the reference {{reference}}.',
  started: 'This person has started already: extra time and breaks stay as they are.',
  noRows: 'The file has no rows.',
  tooManyRows: 'The file has more than {{most}} rows. Divide it.',
  noColumn: 'Choose the column that holds the name, and the one that holds the e-mail address.',
};
