/* `npm run add-staff -- --name "…" --email … --roles assessor,lead`: adds somebody of the staff and tells their password once. */
import path from 'node:path';
import { parseArgs } from 'node:util';
import Joi from 'joi';
import { objectOf, oneOf } from '../../core/validation/shapes';
import { roles, type Role } from '../../core/rounds/api';
import { readConfig } from '../config';
import { openDatabase } from '../db/open';
import { newSecret } from '../secrets';
import { addStaff } from './operations';

const { values } = parseArgs({
  options: { name: { type: 'string' }, email: { type: 'string' }, roles: { type: 'string' } },
});
const wanted = objectOf<{ name: string; email: string; roles: Role[] }>({
  name: Joi.string().trim().min(2).max(100),
  email: Joi.string().email({ tlds: false }).lowercase().max(200),
  roles: Joi.array().items(oneOf(roles)).unique().min(1),
}).validate({ ...values, roles: values.roles?.split(',').map((role) => role.trim()) });
if (wanted.error) {
  console.error(`${wanted.error.message}\nRoles: ${roles.join(', ')}, several parted by commas.`);
  process.exit(1);
}
const db = openDatabase(path.join(readConfig(process.env).dataFolder, 'clear-sitting.sqlite'));
const password = newSecret().slice(0, 16);
try {
  await addStaff(db, { ...wanted.value, password });
} catch (error) {
  console.error(
    /UNIQUE/.test(String(error)) ? `There is an account for ${wanted.value.email} already.` : String(error),
  );
  process.exit(1);
}
console.log(`${wanted.value.name} (${wanted.value.roles.join(', ')}) signs in with`);
console.log(`  ${wanted.value.email}\n  ${password}`);
console.log('The password is shown this once.');
