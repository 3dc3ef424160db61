// Lists what the TypeScript compiler's own parser finds in files, or times it.
//
// Paths come on standard input, one a line. "declarations" prints one JSON object
// a declaration; "time" prints the seconds that createSourceFile takes for all.
// The folder that holds the package "typescript" is the second argument.
import { readFileSync, writeSync } from 'node:fs';
import { createRequire } from 'node:module';

const [mode, folder] = process.argv.slice(2);
const ts = createRequire(folder + '/x.js')('typescript');
const paths = readFileSync(0, 'utf8').split('\n').filter(Boolean);

const kinds = { '.tsx': ts.ScriptKind.TSX, '.jsx': ts.ScriptKind.JSX };
const kindOf = path => kinds[path.slice(path.lastIndexOf('.'))] ?? (/\.[mc]?ts$/.test(path) ? ts.ScriptKind.TS : ts.ScriptKind.JS);

function decode(data) {
  if (data[0] === 0xff && data[1] === 0xfe) return data.toString('utf16le').slice(1);
  const text = data.toString('utf8');
  return text.charCodeAt(0) === 0xfeff ? text.slice(1) : text;
}

let lines = [];
function out(object) {
  lines.push(JSON.stringify(object));
  if (lines.length > 1000) flush();
}
function flush() {
  let data = Buffer.from(lines.map(l => l + '\n').join(''));
  lines = [];
  while (data.length > 0) {
    try { data = data.subarray(writeSync(1, data)); } catch (e) { if (e.code !== 'EAGAIN') throw e; }
  }
}

class File {
  constructor(path, text) {
    this.path = path;
    this.file = ts.createSourceFile(path, text, ts.ScriptTarget.ESNext, true, kindOf(path));
    this.top = new Set();
  }

  refused() { return this.file.parseDiagnostics.length > 0; }

  documented(node) {
    const docs = node['js' + 'Doc'] ?? [];
    const last = docs[docs.length - 1];
    return last !== undefined && last.getText().replace(/^\/\*\*|\*\/$/g, '').replace(/[\s*]/g, '') !== '';
  }

  emit(name, at, scope, params, documented, hidden = false) {
    out({
      file: this.path, line: this.file.getLineAndCharacterOfPosition(at).line + 1, name, scope: scope.join('.'),
      params, documented, public: !hidden && !name.startsWith('#'),
    });
    if (scope.length === 0) this.top.add(name);
  }

  params(node) {
    return node.parameters.map(p => {
      const name = ts.isIdentifier(p.name) ? p.name.text : ts.isObjectBindingPattern(p.name) ? '{}' : '[]';
      return (p.dotDotDotToken ? '...' : '') + name;
    });
  }

  isFunction(node) { return node && (ts.isArrowFunction(node) || ts.isFunctionExpression(node)); }

  hidden(node) { return (ts.getCombinedModifierFlags(node) & ts.ModifierFlags.Private) !== 0; }

  block(statements, scope) {
    for (const s of statements) this.statement(s, scope);
  }

  statement(s, scope) {
    const doc = this.documented(s);
    if (ts.isFunctionDeclaration(s)) {
      this.emit(s.name?.text ?? 'default', (s.name ?? s).getStart(), scope, this.params(s), doc);
    } else if (ts.isClassDeclaration(s)) {
      this.klass(s, s.name?.text ?? 'default', (s.name ?? s).getStart(), scope, doc);
    } else if (ts.isInterfaceDeclaration(s)) {
      this.emit(s.name.text, s.name.getStart(), scope, null, doc);
      for (const m of s.members) this.signature(m, [...scope, s.name.text]);
    } else if (ts.isTypeAliasDeclaration(s)) {
      this.emit(s.name.text, s.name.getStart(), scope, null, doc);
    } else if (ts.isEnumDeclaration(s)) {
      this.emit(s.name.text, s.name.getStart(), scope, null, doc);
      for (const m of s.members) this.emit(this.nameOf(m.name), m.name.getStart(), [...scope, s.name.text], null, this.documented(m));
    } else if (ts.isModuleDeclaration(s)) {
      this.emit(s.name.text, s.name.getStart(), scope, null, doc);
      if (s.body && ts.isModuleBlock(s.body)) this.block(s.body.statements, [...scope, s.name.text]);
      else if (s.body) this.statement(s.body, [...scope, s.name.text]);
    } else if (ts.isVariableStatement(s)) {
      s.declarationList.declarations.forEach((d, i) => this.variable(d, scope, this.documented(d) || i === 0 && doc));
    } else if (ts.isExportAssignment(s) && !s.isExportEquals && !ts.isIdentifier(s.expression)) {
      this.emit('default', s.getStart(), scope, this.isFunction(s.expression) ? this.params(s.expression) : null, doc);
    } else if (ts.isExpressionStatement(s) && scope.length === 0) {
      this.assignment(s.expression, doc);
    }
  }

  variable(d, scope, doc) {
    if (!ts.isIdentifier(d.name)) {
      let first = true;
      const bound = pattern => {
        for (const e of pattern.elements) {
          if (ts.isOmittedExpression(e)) continue;
          if (ts.isIdentifier(e.name)) { this.emit(e.name.text, e.name.getStart(), scope, null, doc && first); first = false; } else bound(e.name);
        }
      };
      bound(d.name);
      return;
    }
    if (d.initializer && ts.isClassExpression(d.initializer)) {
      this.klass(d.initializer, d.name.text, d.name.getStart(), scope, doc);
      return;
    }
    this.emit(d.name.text, d.name.getStart(), scope, this.isFunction(d.initializer) ? this.params(d.initializer) : null, doc);
  }

  nameOf(name) {
    if (ts.isComputedPropertyName(name)) return name.getText().replace(/\s+/g, ' ');
    if (ts.isNumericLiteral(name)) return name.getText();
    if (ts.isStringLiteral(name)) return name.getText().slice(1, -1);
    return name.text ?? name.getText();
  }

  klass(c, name, at, scope, doc) {
    this.emit(name, at, scope, null, doc);
    const inner = [...scope, name];
    for (const m of c.members) {
      const hidden = this.hidden(m);
      if (ts.isConstructorDeclaration(m)) {
        const at = m.getChildren().find(n => n.kind === ts.SyntaxKind.ConstructorKeyword) ?? m.name ?? m;
        this.emit('constructor', at.getStart(), inner, this.params(m), this.documented(m), hidden);
        for (const p of m.parameters) {
          if (p.modifiers?.some(x => x.kind !== ts.SyntaxKind.Decorator) && ts.isIdentifier(p.name)) {
            this.emit(p.name.text, p.name.getStart(), inner, null, this.documented(p), this.hidden(p));
          }
        }
        if (m.body) this.setIn(m.body, inner);
      } else if (ts.isMethodDeclaration(m) || ts.isAccessor(m)) {
        this.emit(this.nameOf(m.name), m.name.getStart(), inner, this.params(m), this.documented(m), hidden);
      } else if (ts.isPropertyDeclaration(m)) {
        this.emit(this.nameOf(m.name), m.name.getStart(), inner, null, this.documented(m), hidden);
      } else if (ts.isIndexSignatureDeclaration(m)) {
        this.emit('[]', m.getChildren().find(n => n.kind === ts.SyntaxKind.OpenBracketToken).getStart(), inner, this.params(m), this.documented(m));
      }
    }
  }

  // What a constructor sets on "this" under a comment.
  setIn(body, scope) {
    const visit = node => {
      if (ts.isExpressionStatement(node) && this.documented(node)) {
        const e = node.expression;
        const target = ts.isBinaryExpression(e) && e.operatorToken.kind === ts.SyntaxKind.EqualsToken ? e.left : e;
        if (ts.isPropertyAccessExpression(target) && target.expression.kind === ts.SyntaxKind.ThisKeyword) {
          this.emit(target.name.text, target.name.getStart(), scope, null, true);
        }
      }
      ts.forEachChild(node, visit);
    };
    visit(body);
  }

  signature(m, scope) {
    const doc = this.documented(m);
    if (ts.isCallSignatureDeclaration(m)) this.emit('()', m.getStart(), scope, this.params(m), doc);
    else if (ts.isConstructSignatureDeclaration(m)) this.emit('new', m.getStart(), scope, this.params(m), doc);
    else if (ts.isIndexSignatureDeclaration(m)) {
      this.emit('[]', m.getChildren().find(n => n.kind === ts.SyntaxKind.OpenBracketToken).getStart(), scope, this.params(m), doc);
    } else if (ts.isMethodSignature(m) || ts.isAccessor(m)) this.emit(this.nameOf(m.name), m.name.getStart(), scope, this.params(m), doc);
    else if (ts.isPropertySignature(m)) this.emit(this.nameOf(m.name), m.name.getStart(), scope, null, doc);
  }

  // Assignments to module.exports, exports, prototypes and members of what is declared.
  assignment(e, doc) {
    if (!ts.isBinaryExpression(e) || e.operatorToken.kind !== ts.SyntaxKind.EqualsToken) return;
    const path = this.names(e.left);
    const value = e.right;
    if (!path) return;
    const chained = ts.isBinaryExpression(value) && value.operatorToken.kind === ts.SyntaxKind.EqualsToken && this.names(value.left);
    const names = path.map(p => p.text);
    const last = path[path.length - 1];
    const at = last.at;
    if (names.length === 1) {
      if (chained) this.assignment(value, doc);
      return;
    }
    if (names[0] === 'module' && names[1] === 'exports' && names.length === 2) {
      if (ts.isObjectLiteralExpression(value)) { this.object(value, [], null); return; }
      if (ts.isFunctionExpression(value) || ts.isClassExpression(value)) {
        const name = value.name?.text ?? 'default', from = value.name?.getStart() ?? at;
        if (ts.isClassExpression(value)) this.klass(value, name, from, [], doc);
        else this.emit(name, from, [], this.params(value), doc);
        return;
      }
      if (chained) this.assignment(value, doc);
      else if (ts.isArrowFunction(value)) this.emit('default', at, [], this.params(value), doc);
      return;
    }
    if (names[0] === 'exports' && names.length === 2 || names[0] === 'module' && names[1] === 'exports' && names.length === 3) {
      if (last.text === '__esModule') return;
      if (!chained && ts.isIdentifier(value) && value.text === last.text && this.declared.has(value.text)) return;
      if (ts.isClassExpression(value)) this.klass(value, last.text, at, [], doc);
      else this.emit(last.text, at, [], this.isFunction(value) ? this.params(value) : null, doc);
      if (chained) this.assignment(value, false);
      return;
    }
    if (names.length === 3 && names[1] === 'prototype') {
      if (this.callables.has(names[0]) || this.isFunction(value)) this.emit(last.text, at, [names[0]], this.isFunction(value) ? this.params(value) : null, doc);
      return;
    }
    if (names.length === 2 && names[1] === 'prototype' && ts.isObjectLiteralExpression(value) && this.callables.has(names[0])) {
      this.object(value, [names[0]], names[0]);
      return;
    }
    if (names.length === 2 && names[1] !== 'prototype' && this.callables.has(names[0])) {
      this.emit(last.text, at, [names[0]], this.isFunction(value) ? this.params(value) : null, doc);
    }
  }

  names(e) {
    if (ts.isIdentifier(e)) return [{ text: e.text, at: e.getStart() }];
    if (ts.isPropertyAccessExpression(e)) {
      const before = this.names(e.expression);
      return before && [...before, { text: e.name.text, at: e.name.getStart() }];
    }
    if (ts.isElementAccessExpression(e) && ts.isStringLiteral(e.argumentExpression)) {
      const before = this.names(e.expression);
      return before && [...before, { text: e.argumentExpression.getText().slice(1, -1), at: e.argumentExpression.getStart() }];
    }
    return null;
  }

  object(o, scope, owner) {
    for (const p of o.properties) {
      const doc = this.documented(p);
      if (ts.isMethodDeclaration(p) || ts.isAccessor(p)) this.emit(this.nameOf(p.name), p.name.getStart(), scope, this.params(p), doc);
      else if (ts.isPropertyAssignment(p)) {
        const v = p.initializer;
        if (!owner && ts.isIdentifier(v) && v.text === this.nameOf(p.name) && this.top.has(v.text)) continue;
        this.emit(this.nameOf(p.name), p.name.getStart(), scope, this.isFunction(v) ? this.params(v) : null, doc);
      }
    }
  }

  // All names that declarations at the top give.
  get declared() {
    const names = new Set();
    const bind = n => ts.isIdentifier(n) ? names.add(n.text) : n.elements.forEach(e => ts.isOmittedExpression(e) || bind(e.name));
    for (const s of this.file.statements) {
      if ((ts.isFunctionDeclaration(s) || ts.isClassDeclaration(s)) && s.name) names.add(s.name.text);
      if (ts.isVariableStatement(s)) s.declarationList.declarations.forEach(d => bind(d.name));
    }
    Object.defineProperty(this, 'declared', { value: names });
    return names;
  }

  // Names at the top that can be called or made, which members can be set on.
  get callables() {
    const names = new Set();
    for (const s of this.file.statements) {
      if ((ts.isFunctionDeclaration(s) || ts.isClassDeclaration(s)) && s.name) names.add(s.name.text);
      if (ts.isVariableStatement(s)) {
        for (const d of s.declarationList.declarations) {
          if (ts.isIdentifier(d.name) && d.initializer && (this.isFunction(d.initializer) || ts.isClassExpression(d.initializer))) names.add(d.name.text);
        }
      }
    }
    Object.defineProperty(this, 'callables', { value: names });
    return names;
  }
}

// Names that mean something, each with line, byte in the line, and 1 where no
// scope within the file declares it.
function namesIn(path, text) {
  const file = ts.createSourceFile(path, text, ts.ScriptTarget.ESNext, true, kindOf(path));
  if (file.parseDiagnostics.length) return null;
  ts.bindSourceFile(file, {});
  const found = [];
  let line = 1, start = 0;
  const add = (node, own) => {
    const pos = node.getStart(file, false);
    for (;;) {
      const end = text.indexOf('\n', start);
      if (end < 0 || end >= pos) break;
      line++;
      start = end + 1;
    }
    found.push([line, Buffer.byteLength(text.slice(start, pos)), own]);
  };
  const local = (node, name) => {
    for (let at = node; at && at !== file; at = at.parent) {
      if (at.locals?.has(name)) {
        const by = at.locals.get(name).declarations?.[0];
        return by && (ts.isImportSpecifier(by) || ts.isImportClause(by) || ts.isNamespaceImport(by) || ts.isImportEqualsDeclaration(by)) ? 0 : 1;
      }
      if ((ts.isFunctionExpression(at) || ts.isClassExpression(at)) && at.name?.text === name) return 1;
      if (at.typeParameters?.some(p => p.name.text === name)) return 1;
    }
    return 0;
  };
  const isName = n => {
    const p = n.parent;
    if (ts.isPropertyAccessExpression(p) || ts.isQualifiedName(p)) return (p.expression ?? p.left) === n;
    if (ts.isJsxAttribute(p) || ts.isJsxNamespacedName(p) || ts.isLabeledStatement(p) || ts.isBreakOrContinueStatement(p) || ts.isMetaProperty(p)) return false;
    if ((ts.isJsxOpeningElement(p) || ts.isJsxSelfClosingElement(p)) && p.tagName === n) return /^[A-Z]/.test(n.text);
    if (ts.isJsxClosingElement(p) || ts.isImportSpecifier(p) || ts.isImportClause(p) || ts.isNamespaceImport(p) || ts.isNamespaceExport(p)) return false;
    if (ts.isExportSpecifier(p)) return !p.parent.parent.moduleSpecifier && (p.propertyName ?? p.name) === n;
    if (ts.isBindingElement(p)) return p.initializer === n;
    if (ts.isNamedTupleMember(p) || ts.isTypePredicateNode(p)) return p.type === n;
    if (ts.isImportTypeNode(p)) return false;
    if (ts.isShorthandPropertyAssignment(p)) return p.name === n || p.objectAssignmentInitializer === n;
    return p.name !== n;
  };
  const walk = n => {
    if (ts.isIdentifier(n)) {
      if (isName(n)) add(n, 1 - local(n, n.escapedText));
      return;
    }
    ts.forEachChild(n, walk);
  };
  ts.forEachChild(file, walk);
  return found;
}

let spent = 0;
for (const path of paths) {
  const text = decode(readFileSync(path));
  if (mode === 'time') {
    const begin = process.hrtime.bigint();
    ts.createSourceFile(path, text, ts.ScriptTarget.ESNext, false, kindOf(path));
    spent += Number(process.hrtime.bigint() - begin) / 1e9;
    continue;
  }
  if (mode === 'names') {
    const names = namesIn(path, text);
    if (names) out({ file: path, names });
    continue;
  }
  const file = new File(path, text);
  if (file.refused()) out({ file: path, refused: true });
  else file.block(file.file.statements, []);
}
if (mode === 'time') out(+spent.toFixed(6));
flush();
