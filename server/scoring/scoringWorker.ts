import { keyKinds } from '../../core/kinds/keyKinds';
import { serveScoring } from './serveScoring';

serveScoring(keyKinds);
