import { faultReply, type CaseJob, type EngineReply } from './engine';

interface Handle {
  dispose(): void;
}
type Result = { readonly value: Handle; error?: undefined } | { readonly error: Handle };

/** What a case needs of a context of QuickJS. */
export interface ScriptContext {
  readonly global: Handle;
  readonly undefined: Handle;
  readonly runtime: {
    setMemoryLimit(bytes: number): void;
    setMaxStackSize(bytes: number): void;
    setInterruptHandler(over: () => boolean): void;
    hasPendingJob(): boolean;
    executePendingJobs(most: number): object;
  };
  evalCode(code: string, filename?: string): Result;
  unwrapResult(result: Result): Handle;
  callFunction(f: Handle, self: Handle, ...args: Handle[]): Result;
  newFunction(name: string, f: (handle: Handle) => void): Handle;
  newString(text: string): Handle;
  setProp(object: Handle, name: string, value: Handle): void;
  getString(handle: Handle): string;
  typeof(handle: Handle): string;
  dump(handle: Handle): unknown;
}

export interface JavascriptLimits {
  /** Processor time of this case so far, in milliseconds. */
  readonly spentMs: () => number;
  /** As deep as calls may go, in bytes of the engine's stack: as much as the thread has. */
  readonly stackBytes: number;
}

/**
 * Evaluated before the program, which cannot reach what it keeps: `console`, and a function that calls the program's and
 * keeps what it returned, or came to later, as JSON. What JSON would lose without a word (NaN, a Map) is a fault.
 */
const HARNESS = `(()=>{'use strict';
const write=__write;delete globalThis.__write;
const {stringify,parse}=JSON,{isArray}=Array,{keys}=Object,{isFinite}=Number,{isView}=ArrayBuffer,Text=String;
const tag=Function.prototype.call.bind(Object.prototype.toString);
const others=[Map,Set,WeakMap,WeakSet,Promise,RegExp,Error,ArrayBuffer];
const show=v=>typeof v==='string'?v:typeof v==='object'&&v!==null?stringify(v):Text(v);
const log=(...all)=>write(all.map(show).join(' ')+'\\n');
globalThis.console={log,info:log,warn:log,error:log,debug:log};
const fault=(code,text)=>'{"fault":"'+code+'","text":'+stringify(Text(text))+',"line":null}';
const odd=(v,depth)=>{
  const type=typeof v;
  if(type==='number')return isFinite(v)?null:Text(v);
  if(type==='bigint'||type==='function'||type==='symbol')return type;
  if(type!=='object'||v===null)return null;
  if(depth>400)return 'nesting';
  if(isView(v))return tag(v);
  for(let i=0;i<others.length;i++)if(v instanceof others[i])return tag(v);
  const names=isArray(v)?null:keys(v);
  for(let i=0,n=names?names.length:v.length;i<n;i++){
    const found=odd(v[names?names[i]:i],depth+1);
    if(found!==null)return found;
  }
  return null;
};
return (f,args)=>{
  let out=null;
  const keep=v=>{
    const found=odd(v,0);
    out=found==='nesting'?fault('tooDeep',''):found!==null?fault('notComparable',found):'{"value":'+(v===undefined?'null':stringify(v))+'}';
  };
  const v=f(...parse(args));
  if(v!==null&&typeof v==='object'&&typeof v.then==='function')v.then(v=>{try{keep(v)}catch(e){out=fault('thrown',Text(e))}},e=>{out=fault('thrown',Text(e))});
  else keep(v);
  return ()=>out;
};
})()`;

/** Wrapped in a function: QuickJS runs loops at the top level some two hundred times slower. Keeps the lines' numbers. */
const wrapped = (program: string, functionName: string) =>
  `(function(){${program}\n;return typeof ${functionName}==='function'?${functionName}:undefined})()`;

const JOBS_AT_ONCE = 4096;
const MEGABYTE = 1 << 20;

const utf8Length = (text: string): number => new TextEncoder().encode(text).length;

/** What a program threw, as a reply; memory and depth have words of their own. */
function replyOfThrown(thrown: unknown): string {
  if (typeof thrown !== 'object' || thrown === null) return faultReply('thrown', String(thrown));
  const { name, message, stack } = thrown as Record<string, unknown>;
  const text = `${String(name)}: ${String(message)}`;
  if (/^InternalError: out of memory/.test(text)) return JSON.stringify({ memory: true });
  if (/^(InternalError: stack overflow|RangeError: Maximum call stack)/.test(text))
    return faultReply('tooDeep');
  const line = /program\.js:(\d+)/.exec(String(stack))?.[1];
  return faultReply('thrown', text, line === undefined ? null : Number(line));
}

/** Runs one case in a context in which nothing has run yet. The same on the server and in the browser. */
export function runJavascriptCase(vm: ScriptContext, job: CaseJob, limits: JavascriptLimits): EngineReply {
  let [printed, bytes] = ['', 0];
  let limit: EngineReply['limit'] = 'none';
  const { runtime } = vm;
  runtime.setMemoryLimit(job.megabytes * MEGABYTE);
  runtime.setMaxStackSize(limits.stackBytes);
  const over = () => {
    if (limit === 'none' && limits.spentMs() > job.milliseconds) limit = 'time';
    return limit !== 'none';
  };
  runtime.setInterruptHandler(over);
  const settle = (reply: string): EngineReply => ({ limit, printed, reply, cpuMs: limits.spentMs() });
  const write = (handle: Handle) => {
    const text = vm.getString(handle);
    bytes += utf8Length(text);
    if (bytes > job.outputBytes) limit = 'output';
    else printed += text;
  };
  try {
    vm.setProp(vm.global, '__write', vm.newFunction('__write', write));
    const call = vm.unwrapResult(vm.evalCode(HARNESS));
    const made = vm.evalCode(wrapped(job.program, job.functionName), 'program.js');
    if (made.error) return settle(replyOfThrown(vm.dump(made.error)));
    if (vm.typeof(made.value) !== 'function') return settle(faultReply('noFunction', job.functionName));
    const called = vm.callFunction(call, vm.undefined, made.value, vm.newString(job.arguments));
    if (called.error) return settle(replyOfThrown(vm.dump(called.error)));
    while (runtime.hasPendingJob() && !over()) runtime.executePendingJobs(JOBS_AT_ONCE);
    const out = vm.unwrapResult(vm.callFunction(called.value, vm.undefined));
    return settle(vm.typeof(out) === 'string' ? vm.getString(out) : faultReply('waits'));
  } catch (trouble) {
    // Of the engine itself, not of the program: no memory or no stack left.
    const text = String(trouble);
    if (/stack/i.test(text)) return settle(faultReply('tooDeep'));
    return settle(/memory|unreachable/i.test(text) ? JSON.stringify({ memory: true }) : faultReply('ended'));
  }
}
