import { messages as author } from '../../core/messages/author.en';
import { document } from '../../core/messages/documents.en';
import { formula } from '../../core/messages/formulas.en';
import { messages } from '../../core/messages/imports.en';
import { section } from '../../core/messages/sections.en';
import { words } from '../words';

/* What is said of files that staff bring: their own words, and those of texts and kinds. */
words('import', messages);
words('document', document);
words('author', author);
words('formula', formula);
words('section', section);
