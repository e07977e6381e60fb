import {
  faultReply,
  NAME_KEPT,
  PLACES_KEPT,
  type CaseJob,
  type EngineReply,
  type FaultPlace,
} from './engine';

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
    computeMemoryUsage(): Handle;
  };
  evalCode(code: string, filename?: string): Result;
  unwrapResult(result: Result): Handle;
  callFunction(f: Handle, self: Handle, ...args: Handle[]): Result;
  newFunction(name: string, f: (handle: Handle) => void): Handle;
  newString(text: string): Handle;
  newArray(): Handle;
  setProp(object: Handle, name: string | number, value: Handle): void;
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
 * Evaluated before the program, which cannot reach what it keeps: `console`, the input and the files that it may read, its
 * own other files, and a function that runs it and keeps what it returned, or came to later, as a value in JSON. What is no
 * value (a date, a function) is a fault.
 */
const HARNESS = `(()=>{'use strict';
const write=__write;delete globalThis.__write;
const {stringify,parse}=JSON,{isArray}=Array,{keys}=Object,{isInteger}=Number,{isView}=ArrayBuffer,Text=String,Big=BigInt;
const {abs}=Math,tag=Function.prototype.call.bind(Object.prototype.toString);
const hex=Function.prototype.call.bind(Big.prototype.toString);
const others=[WeakMap,WeakSet,Promise,RegExp,Error,ArrayBuffer,Date];
const M=Map,S=Set,each=Function.prototype.call.bind(M.prototype.forEach),all=Function.prototype.call.bind(S.prototype.forEach);
const plain=v=>typeof v==='bigint'?v+'n':v;
const show=v=>typeof v==='string'?v:typeof v==='object'&&v!==null?stringify(v,(_,one)=>plain(one)):Text(v);
const log=(...all)=>write(stringify(all.map(show).join(' ')+'\\n'));
globalThis.console={log,info:log,warn:log,error:log,debug:log};
const fault=(code,text)=>'{"fault":"'+code+'","text":'+stringify(Text(text))+',"at":[]}';
class Odd{constructor(what){this.what=what}}
const big=v=>{const t=hex(v,16);return t.length<3300?hex(v,10):v<0n?'-0x'+t.slice(1):'0x'+t};
const digits='0123456789abcdef';
/* As JSON text, put together sign by sign: a program may have changed whatever a list or an object inherits. */
const value=(v,depth)=>{
  const type=typeof v;
  if(v===undefined||v===null)return 'null';
  if(type==='boolean')return v?'true':'false';
  if(type==='string')return stringify(v);
  if(type==='number'){
    if(isInteger(v)&&abs(v)<=9007199254740992)return '["i","'+Text(v===0?0:v)+'"]';
    return '["f","'+(v!==v?'nan':v===Infinity?'inf':v===-Infinity?'-inf':Text(v))+'"]';
  }
  if(type==='bigint')return '["i","'+big(v)+'"]';
  if(type!=='object')throw new Odd(type);
  if(depth>400)throw new Odd('');
  let out='';
  const add=one=>{out+=','+value(one,depth+1)};
  if(isArray(v)){for(let i=0;i<v.length;i++)add(v[i]);return '["l"'+out+']'}
  if(v instanceof M){each(v,(one,key)=>{add(key);add(one)});return '["m"'+out+']'}
  if(v instanceof S){all(v,add);return '["s"'+out+']'}
  if(isView(v)){
    if(v instanceof DataView)throw new Odd('DataView');
    if(v instanceof Uint8Array){for(let i=0;i<v.length;i++)out+=digits[v[i]>>4]+digits[v[i]&15];return '["b","'+out+'"]'}
    for(let i=0;i<v.length;i++)add(v[i]);
    return '["l"'+out+']';
  }
  for(let i=0;i<others.length;i++)if(v instanceof others[i])throw new Odd(tag(v));
  const names=keys(v);
  for(let i=0;i<names.length;i++)if(v[names[i]]!==undefined){out+=','+stringify(names[i]);add(v[names[i]])}
  return '["m"'+out+']';
};
const given=v=>{
  if(!isArray(v))return v;
  const [type,...items]=v;
  if(type==='i'){const n=Number(items[0]);return abs(n)<=9007199254740991?n:Big(items[0])}
  if(type==='f'||type==='d')return items[0]==='inf'?Infinity:items[0]==='-inf'?-Infinity:Number(items[0]);
  if(type==='l'||type==='s')return items.map(given);
  if(type==='b')return Uint8Array.from({length:items[0].length/2},(_,i)=>Number('0x'+items[0].slice(2*i,2*i+2)));
  const out={};
  for(let i=0;i<items.length;i+=2)Object.defineProperty(out,typeof items[i]==='string'?items[i]:items[i][1],{value:given(items[i+1]),writable:true,enumerable:true,configurable:true});
  return out;
};
return (job,modules)=>{
  const {functionName,input,inputFiles,names}=parse(job);
  const streams=functionName===null;
  const files=new M();for(const one of inputFiles)files.set(one.name,one.text);
  globalThis.readFile=name=>{if(!files.has(name))throw new Error('There is no file '+name);return files.get(name)};
  if(streams){
    let at=0;
    globalThis.readLine=()=>{
      if(at>=input.length)return null;
      const end=input.indexOf('\\n',at),to=end<0?input.length:end,line=input.slice(at,to);
      at=end<0?input.length:end+1;
      return line.endsWith('\\r')?line.slice(0,-1):line;
    };
    globalThis.readText=()=>{const rest=input.slice(at);at=input.length;return rest};
  }
  const known=new M();
  const load=name=>{
    if(known.has(name))return known.get(name);
    const at=names.indexOf(name),made={};
    known.set(name,made);
    modules[at](made,find);
    return made;
  };
  const find=asked=>{
    const name=Text(asked).replace(/^\\.\\//,'');
    const own=[name,name+'.js',name+'.ts'].find(one=>names.includes(one));
    if(own===undefined)throw new Error('There is no module '+asked);
    return load(own);
  };
  let out=null;
  const settle=v=>{
    try{out='{"value":'+(streams?'null':value(v,0))+'}'}
    catch(e){if(!(e instanceof Odd))throw e;out=e.what===''?fault('tooDeep',''):fault('notComparable',e.what)}
  };
  const main={};
  known.set(names[0],main);
  const f=modules[0](main,find);
  if(streams){settle(null)}
  else if(typeof f!=='function')out=fault('noFunction',functionName);
  else{
    const v=f(...parse(input).map(given));
    if(v!==null&&typeof v==='object'&&typeof v.then==='function')v.then(v=>{try{settle(v)}catch(e){out=fault('thrown',Text(e))}},e=>{out=fault('thrown',Text(e))});
    else settle(v);
  }
  return ()=>out;
};
})()`;

/** Wrapped in a function: QuickJS runs loops at the top level some two hundred times slower. Keeps the lines' numbers. */
const wrapped = (text: string, functionName: string | null) =>
  functionName === null
    ? `(function(exports,require){${text}\n})`
    : `(function(exports,require){${text}\n;return typeof ${functionName}==='function'?${functionName}:exports.${functionName}})`;

const JOBS_AT_ONCE = 4096;
const MEGABYTE = 1 << 20;

const utf8Length = (text: string): number => new TextEncoder().encode(text).length;

/** Places in the program's own files, from the stack that the engine wrote; its innermost line comes first there. */
function placesOf(stack: string, names: readonly string[]): FaultPlace[] {
  const places = [...stack.matchAll(/^ *at (?:(\S+) )?\(?([\w.-]+):(\d+)(?::\d+)?\)?$/gm)]
    .filter(([, , file]) => names.includes(file!))
    .map(([, name = '', file, line]): FaultPlace => {
      const within = name.startsWith('<') ? '' : name.slice(0, NAME_KEPT);
      return { file: file!, line: Number(line), in: within };
    })
    .reverse();
  return places.length <= PLACES_KEPT ? places : [...places.slice(0, 3), ...places.slice(3 - PLACES_KEPT)];
}

/** What a program threw, as a reply; memory and depth have words of their own. */
function replyOfThrown(thrown: unknown, names: readonly string[]): string {
  if (typeof thrown !== 'object' || thrown === null) return faultReply('thrown', String(thrown));
  const { name, message, stack } = thrown as Record<string, unknown>;
  const text = `${String(name)}: ${String(message)}`;
  if (/^InternalError: out of memory/.test(text)) return JSON.stringify({ memory: true });
  if (/^(InternalError: stack overflow|RangeError: Maximum call stack)/.test(text))
    return faultReply('tooDeep');
  return faultReply('thrown', text, placesOf(String(stack), names));
}

/** What the engine holds now, in bytes. */
function memoryUsed(vm: ScriptContext): number {
  const { memory_used_size: used } = vm.dump(vm.runtime.computeMemoryUsage()) as Record<string, unknown>;
  return typeof used === 'number' ? used : 0;
}

const NOTHING_RETURNED = '{"value":null}';

/** Runs one case in a context in which nothing has run yet. The same on the server and in the browser. */
export function runJavascriptCase(vm: ScriptContext, job: CaseJob, limits: JavascriptLimits): EngineReply {
  let [printed, bytes] = ['', 0];
  let limit: EngineReply['limit'] = 'none';
  const { runtime } = vm;
  const names = job.files.map((file) => file.name);
  const streams = job.functionName === null;
  runtime.setMemoryLimit(job.megabytes * MEGABYTE);
  runtime.setMaxStackSize(limits.stackBytes);
  const over = () => {
    if (limit === 'none' && limits.spentMs() > job.milliseconds) limit = 'time';
    return limit !== 'none';
  };
  runtime.setInterruptHandler(over);
  const before = memoryUsed(vm);
  const settle = (reply: string): EngineReply => {
    const memoryBytes = Math.max(0, memoryUsed(vm) - before);
    const common = { limit, memoryBytes, cpuMs: limits.spentMs() };
    // What a program that reads an input wrote is what it came to.
    if (streams && reply === NOTHING_RETURNED)
      return { ...common, printed: '', reply: JSON.stringify({ value: printed }) };
    return { ...common, printed, reply };
  };
  const write = (handle: Handle) => {
    const text = JSON.parse(vm.getString(handle)) as string;
    bytes += utf8Length(text);
    if (bytes > job.outputBytes) limit = 'output';
    else printed += text;
  };
  try {
    vm.setProp(vm.global, '__write', vm.newFunction('__write', write));
    const call = vm.unwrapResult(vm.evalCode(HARNESS));
    const modules = vm.newArray();
    for (const [i, { name, text }] of job.files.entries()) {
      const made = vm.evalCode(wrapped(text, i === 0 ? job.functionName : null), name);
      if (made.error) return settle(replyOfThrown(vm.dump(made.error), names));
      vm.setProp(modules, i, made.value);
    }
    const { functionName, input, inputFiles } = job;
    const told = vm.newString(JSON.stringify({ functionName, input, inputFiles, names }));
    const called = vm.callFunction(call, vm.undefined, told, modules);
    if (called.error) return settle(replyOfThrown(vm.dump(called.error), names));
    while (runtime.hasPendingJob() && !over()) runtime.executePendingJobs(JOBS_AT_ONCE);
    const out = vm.unwrapResult(vm.callFunction(called.value, vm.undefined));
    return settle(vm.typeof(out) === 'string' ? vm.getString(out) : faultReply('waits'));
  } catch (trouble) {
    // Of the engine itself, not of the program: no memory or no stack left.
    const text = String(trouble);
    const reply = /stack/i.test(text)
      ? faultReply('tooDeep')
      : /memory|unreachable/i.test(text)
        ? JSON.stringify({ memory: true })
        : faultReply('ended');
    return { limit, memoryBytes: 0, printed, reply, cpuMs: limits.spentMs() };
  }
}
