/* Imported first by the engines' workers: in them every local time is UTC, as on the server, wherever the device is. */
const PARTS = ['Date', 'Day', 'FullYear', 'Hours', 'Milliseconds', 'Minutes', 'Month', 'Seconds'] as const;

for (const part of PARTS)
  Date.prototype[`get${part}`] = function (this: Date) {
    return this[`getUTC${part}`]();
  };
Date.prototype.getTimezoneOffset = () => 0;

export {};
