import { measureStaff } from './staff';
console.log(JSON.stringify(await measureStaff(), null, 1));
