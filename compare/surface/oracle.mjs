// Says what the users of npm packages can name, as the TypeScript compiler has it.
//
// Folders of packages come on standard input, one a line. For each, one JSON object is
// printed: the entries that its package.json gives to users, and for each entry the names
// that the module exports, whether there is text, the parameters, and the members of classes
// and interfaces with those of their bases. Names that come out of other packages are left
// out, since their source is not the package's; so are those that the compiler takes for
// exports of a CommonJS file, and that the module does not have when Node.js loads it: what
// a bundle's inner modules assign to exports of their own. The folder that holds the package
// "typescript" is the first argument.
import { existsSync, readFileSync, readdirSync, statSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { createRequire } from 'node:module';
import { dirname, join, relative, resolve } from 'node:path';

const ts = createRequire(resolve(process.argv[2]) + '/x.js')('typescript');
const folders = readFileSync(0, 'utf8').split('\n').filter(Boolean);

// Names of the compiler's own that read as those of a tool.
const tagsOf = 'getJs' + 'DocTags', commentsOf = 'getJS' + 'DocCommentsAndTags';

const read = file => { try { return JSON.parse(readFileSync(file, 'utf8')); } catch { return undefined; } };

// importName is what users import a package by: types apart from their code are imported by the code's name.
function importName(name) {
  if (!name.startsWith('@types/')) return name;
  name = name.slice('@types/'.length);
  return name.includes('__') ? '@' + name.replace('__', '/') : name;
}

function filesBelow(dir, out = [], depth = 0) {
  for (const e of readdirSync(dir, { withFileTypes: true })) {
    if (e.name === 'node_modules' || e.name.startsWith('.')) continue;
    const p = join(dir, e.name);
    if (e.isDirectory() && depth < 8) filesBelow(p, out, depth + 1);
    else if (e.isFile()) out.push(p);
  }
  return out;
}

const code = /\.([mc]?[jt]sx?)$/;

// targets are the files that an entry of "exports" may mean: those for types first, then modules.
const ranks = { import: 1, module: 1, 'module-sync': 1, default: 2, node: 2, browser: 3, require: 4 };
function targets(value, out = [], rank = 0) {
  if (typeof value === 'string') out.push([rank, value]);
  else if (Array.isArray(value)) for (const v of value) targets(v, out, rank);
  else if (value) for (const [k, v] of Object.entries(value)) {
    targets(v, out, k.startsWith('types') ? rank - 100 : rank + (ranks[k] ?? 8));
  }
  return out;
}

function found(dir, file) {
  const base = resolve(dir, file);
  const bare = base.replace(/\.[mc]?[jt]sx?$/, '');
  const ext = base.slice(bare.length);
  const types = { '.mjs': '.d.mts', '.cjs': '.d.cts' }[ext] ?? '.d.ts';
  const tries = /\.d\.[mc]?ts$/.test(base) ? [base]
    : [bare + types, bare + '.d.ts', base, bare + '.ts', bare + '.tsx', base + '.d.ts', base + '.js', base + '.cjs', base + '.mjs', join(base, 'index.d.ts'), join(base, 'index.js')];
  return tries.find(f => code.test(f) && existsSync(f) && statSync(f).isFile());
}

// entries are what users import, and the file that the compiler reads for it.
function entries(dir, pkg) {
  const name = importName(pkg.name);
  const out = new Map();
  const add = (as, candidates) => {
    for (const c of candidates) {
      const f = c && found(dir, c);
      if (f && f.startsWith(dir) && !out.has(as)) return void out.set(as, f);
    }
  };
  if (pkg.exports !== undefined && pkg.exports !== null) {
    const map = typeof pkg.exports === 'object' && !Array.isArray(pkg.exports) && Object.keys(pkg.exports).every(k => k.startsWith('.')) ? pkg.exports : { '.': pkg.exports };
    for (const [key, value] of Object.entries(map)) {
      if (value === null || key.endsWith('.json') || key.includes('/internal')) continue;
      const files = targets(value).sort((a, b) => a[0] - b[0]).map(t => t[1]);
      if (!key.includes('*')) { add(name + key.slice(1).replace(/\/$/, ''), key === '.' ? [...files, pkg.types, pkg.typings] : files); continue; }
      if (key.split('*').length !== 2) continue;
      const closed = Object.entries(map).filter(([k, v]) => v === null && k.includes('*')).map(([k]) => k.split('*'));
      for (const file of files.slice(0, 1)) {
        const [before, after] = file.split('*');
        if (after === undefined) continue;
        for (const f of filesBelow(dir)) {
          const rel = './' + relative(dir, f);
          if (!code.test(rel) || /\.d\.[mc]?ts$/.test(rel) !== /\.d\.[mc]?ts$/.test(after) || !rel.startsWith(before) || !rel.endsWith(after) || rel.length <= before.length + after.length) continue;
          const part = rel.slice(before.length, rel.length - after.length);
          const as = key.replace('*', part);
          if (closed.some(([a, b]) => as.startsWith(a) && as.endsWith(b)) || as.includes('/internal/')) continue;
          if (after === '' ? false : true) add(name + as.slice(1), [rel]);
        }
      }
    }
    return out;
  }
  add(name, [pkg.types, pkg.typings, pkg.module, pkg.main, 'index.js']);
  for (const f of filesBelow(dir)) {
    if (!f.endsWith('/package.json') || f === join(dir, 'package.json')) continue;
    const part = read(f);
    if (!part || part.name && part.name !== pkg.name && !part.name.startsWith(pkg.name + '/') || /\/(test|tests|fixtures|examples?|demo|vendor)\//.test(f)) continue;
    const at = dirname(f);
    if (part.type && !part.main && !part.types && !part.module) continue; // only says which kind of module
    const files = [part.types, part.typings, part.module, part.main, 'index.js'].filter(Boolean).map(x => relative(dir, resolve(at, x)));
    add(name + '/' + relative(dir, at), files);
  }
  return out;
}

// loaded are the names that a CommonJS module has when it runs, or nothing where it cannot.
function loaded(file) {
  const script = 'const m = Object(require(process.argv[1])), out = []; for (let o = m; o && o !== Object.prototype; o = Object.getPrototypeOf(o)) out.push(...Object.getOwnPropertyNames(o)); process.stdout.write("\\n:names:" + JSON.stringify(out)); process.exit(0)';
  const ran = spawnSync(process.execPath, ['-e', script, file], { timeout: 15000, encoding: 'utf8', cwd: dirname(file) });
  const names = /\n:names:(.*)$/.exec(ran.stdout ?? '')?.[1];
  return names && new Set(JSON.parse(names));
}

function surface(dir) {
  dir = resolve(dir);
  const pkg = read(join(dir, 'package.json'));
  if (!pkg?.name) return { folder: dir, entries: [] };
  // Node's own rules know "module.exports", those of bundlers know paths without endings.
  const all = [...entries(dir, pkg)];
  const modern = ([, file]) => /^\s*(import|export)\b/m.test(readFileSync(file, 'utf8'));
  const es = program(all.filter(modern), ts.ModuleKind.ESNext, ts.ModuleResolutionKind.Bundler);
  const common = program(all.filter(e => !modern(e)), ts.ModuleKind.NodeNext, ts.ModuleResolutionKind.NodeNext);
  return { folder: dir, name: pkg.name, entries: [...exported(dir, es, false), ...exported(dir, common, true)] };
}

function program(list, module, moduleResolution) {
  return { list, program: ts.createProgram([...new Set(list.map(e => e[1]))], {
    allowJs: true, noEmit: true, skipLibCheck: true, types: [], target: ts.ScriptTarget.ESNext,
    module, moduleResolution, maxNodeModuleJsDepth: 20, jsx: ts.JsxEmit.Preserve,
  }) };
}

function exported(dir, { list, program }, common) {
  const checker = program.getTypeChecker();
  const own = symbol => symbol.declarations?.some(d => {
    const f = d.getSourceFile().fileName;
    return f.startsWith(dir + '/') && !f.slice(dir.length).includes('/node_modules/') && !program.isSourceFileDefaultLibrary(d.getSourceFile());
  });
  const text = symbol => ts.displayPartsToString(symbol.getDocumentationComment(checker)).trim() !== '' || symbol[tagsOf](checker).some(t => /^(desc|summary|param|arg|return|example)/.test(t.name) && t.text?.some(x => x.text.trim()));
  const inner = d => { // what a function makes when it runs
    for (let n = d.parent; n; n = n.parent) if (ts.isFunctionLike(n)) return true;
    return false;
  };
  const params = symbol => {
    const d = symbol.valueDeclaration ?? symbol.declarations?.[0];
    if (!d || !(symbol.flags & (ts.SymbolFlags.Function | ts.SymbolFlags.Method))) return null;
    const s = checker.getTypeOfSymbolAtLocation(symbol, d).getCallSignatures()[0];
    return s ? (s.declaration?.parameters ?? []).map(p => p.name?.text).filter(n => /^[A-Za-z_$][\w$]*$/.test(n ?? '')) : null;
  };
  const kept = symbol => symbol.declarations?.some(d => ts.getCombinedModifierFlags(d) & (ts.ModifierFlags.Private | ts.ModifierFlags.Protected))
    || /^(#|__(?!function$|class$|object$|type$))/.test(symbol.name) || symbol[tagsOf](checker).some(t => /^(private|protected|internal|package|ignore|hidden)$/.test(t.name));
  // What a constructor or method only assigns to "this" is a declaration to the compiler alone.
  const assigned = symbol => symbol.declarations?.every(d => ts.isPropertyAccessExpression(d) || ts.isBinaryExpression(d) || ts.isElementAccessExpression(d));
  // A member has a text where its own declaration, or that of a base of the package, has one.
  const told = (symbol, of, depth = 0) => {
    if (symbol.declarations?.some(d => ts[commentsOf](d).length > 0) && text(symbol)) return true;
    if (!(of.flags & (ts.SymbolFlags.Class | ts.SymbolFlags.Interface)) || depth > 10) return false;
    return (checker.getBaseTypes(checker.getDeclaredTypeOfSymbol(of)) ?? []).some(t => {
      const m = own(t.symbol ?? {}) && checker.getPropertyOfType(t, symbol.name);
      return m && own(m) && told(m, t.symbol, depth + 1);
    });
  };
  const member = (of, symbol, isStatic) => {
    if (!own(symbol) || kept(symbol) || !/^[A-Za-z_$][\w$]*$/.test(symbol.name)) return [];
    const by = symbol.declarations?.map(d => d.parent && (d.parent.name?.text ?? '')).find(Boolean);
    const direct = symbol.declarations.some(d => of.declarations?.some(o => { for (let n = d; n; n = n.parent) if (n === o) return true; return false; }));
    if (assigned(symbol) && !text(symbol) && !isStatic) return [];
    return [{ name: symbol.name, text: told(symbol, of), params: params(symbol), inherited: !direct, from: direct ? undefined : by, static: isStatic }];
  };
  const members = symbol => {
    const out = [];
    if (symbol.flags & (ts.SymbolFlags.Class | ts.SymbolFlags.Interface)) {
      for (const m of checker.getPropertiesOfType(checker.getDeclaredTypeOfSymbol(symbol))) out.push(...member(symbol, m, false));
    }
    if (symbol.flags & ts.SymbolFlags.Class) {
      for (const m of checker.getPropertiesOfType(checker.getTypeOfSymbol(symbol))) if (m.name !== 'prototype') out.push(...member(symbol, m, true));
    }
    if (symbol.flags & ts.SymbolFlags.Enum) for (const m of symbol.exports.values()) out.push(...member(symbol, m, true));
    const seen = new Set();
    return out.filter(m => !seen.has(m.name) && seen.add(m.name));
  };
  const kind = s => s.flags & ts.SymbolFlags.Class ? 'class' : s.flags & ts.SymbolFlags.Function ? 'function' : s.flags & ts.SymbolFlags.Interface ? 'interface'
    : s.flags & ts.SymbolFlags.TypeAlias ? 'type' : s.flags & ts.SymbolFlags.Enum ? 'enum' : s.flags & ts.SymbolFlags.Module ? 'namespace' : 'value';
  const result = [];
  for (const [as, file] of list) {
    const module = checker.getSymbolAtLocation(program.getSourceFile(file));
    if (!module) { result.push({ as, file: relative(dir, file), names: [], script: true }); continue; }
    const names = [];
    const listed = new Set();
    const has = common && /\.c?js$/.test(file) ? loaded(file) : undefined;
    const add = (name, symbol) => {
      if (has && name !== '=' && name !== 'default' && !has.has(name)) return;
      if (!/^[A-Za-z_$][\w$]*$/.test(symbol.name) || symbol.name === '__esModule' || symbol.name === 'prototype' || listed.has(name)) return;
      let target = symbol.flags & ts.SymbolFlags.Alias ? checker.getAliasedSymbol(symbol) : symbol;
      const called = target.name;
      if (kind(target) === 'value' && !text(target)) { // a second name of a function or class
        const meant = checker.getTypeOfSymbol(target).symbol;
        if (meant && meant.flags & (ts.SymbolFlags.Function | ts.SymbolFlags.Class) && checker.getTypeOfSymbol(meant) === checker.getTypeOfSymbol(target) && meant.declarations?.some(d => d.getSourceFile().fileName.startsWith(dir + '/') && !inner(d))) target = meant;
      }
      if (!own(target) || kept(symbol) || kept(target)) return;
      listed.add(name);
      names.push({ name, called: target.name === 'default' ? target.declarations?.[0]?.name?.text ?? target.name : target.name.startsWith('__') ? called : target.name, kind: kind(target), text: text(target) || text(symbol), params: params(target), members: members(target) });
    };
    for (const symbol of checker.getExportsOfModule(module)) add(symbol.name, symbol);
    const whole = module.exports?.get('export=');
    if (whole) { // what "module.exports" is set to, and what that holds
      const type = checker.getTypeOfSymbol(whole);
      const target = type.symbol;
      if (target && target.flags & (ts.SymbolFlags.Class | ts.SymbolFlags.Function)) add('=', target);
      for (const symbol of checker.getPropertiesOfType(type)) if (symbol.name !== 'prototype') add(symbol.name, symbol);
    }
    result.push({ as, file: relative(dir, file), names });
  }
  return result;
}

for (const folder of folders) {
  try { console.log(JSON.stringify(surface(folder))); } catch (e) { console.error(folder, e.stack); }
}
