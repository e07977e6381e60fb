import { objectOf, oneOf, sha256, whole } from '../validation/shapes';
import { pageTypes, type Page } from './pages';

export const pageSchema = objectOf<Page>({
  hash: sha256,
  bytes: whole(1),
  type: oneOf(pageTypes),
  turn: oneOf([0, 90, 180, 270]),
});
