/** Five classic programs in two languages, each of some tenths of a second in the box. */
export const CLASSICS = [
  {
    name: 'Fibonacci',
    python: 'def f(n):\n    fib = lambda k: k if k < 2 else fib(k - 1) + fib(k - 2)\n    return fib(24)',
    javascript: 'const fib = (k) => (k < 2 ? k : fib(k - 1) + fib(k - 2)); const f = () => fib(25)',
  },
  {
    name: 'sieve',
    python:
      'def f(n):\n    p = [True] * 700000\n    for i in range(2, 837):\n        if p[i]:\n            for j in range(i * i, 700000, i): p[j] = False\n    return sum(p)',
    javascript:
      'const f = () => { const p = new Uint8Array(500000); for (let i = 2; i * i < 500000; i++) if (!p[i]) for (let j = i * i; j < 500000; j += i) p[j] = 1; return p.length }',
  },
  {
    name: 'counting words',
    python:
      "def f(n):\n    d = {}\n    for i in range(300000):\n        k = 'w' + str(i % 5003)\n        d[k] = d.get(k, 0) + 1\n    return len(d)",
    javascript:
      "const f = () => { const m = new Map(); for (let i = 0; i < 200000; i++) { const k = 'w' + (i % 5003); m.set(k, (m.get(k) || 0) + 1) } return m.size }",
  },
  {
    name: 'sorting',
    python: 'def f(n):\n    a = [(i * 7919) % 100003 for i in range(400000)]\n    a.sort()\n    return a[7]',
    javascript:
      'const f = () => { const a = []; for (let i = 0; i < 100000; i++) a.push((i * 7919) % 100003); a.sort((x, y) => x - y); return a[7] }',
  },
  {
    name: 'matrix',
    python:
      'def f(n):\n    m = [[i * j % 7 for j in range(90)] for i in range(90)]\n    return sum(sum(m[i][k] * m[k][j] for k in range(90)) for i in range(90) for j in range(90))',
    javascript:
      'const f = () => { const n = 120, m = Array.from({ length: n }, (_, i) => Array.from({ length: n }, (_, j) => (i * j) % 7)); let s = 0; for (let i = 0; i < n; i++) for (let j = 0; j < n; j++) for (let k = 0; k < n; k++) s += m[i][k] * m[k][j]; return s }',
  },
] as const;
