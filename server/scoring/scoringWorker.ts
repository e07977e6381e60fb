import { keyKinds, type KeyKinds } from '../../core/kinds/keyKinds';
import { serveScoring } from './serveScoring';

serveScoring(keyKinds as unknown as KeyKinds);
