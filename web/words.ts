export { say, words } from '../core/messages/words';
