import { crc32 } from 'node:zlib';
import type { CheckSum } from '../../core/journal/patch';

export const checkSum: CheckSum = (text) => crc32(text).toString(16).padStart(8, '0');
