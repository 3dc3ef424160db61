"""Lists what Python's own parser finds in files, or times it.

Paths come on standard input, one a line. "declarations" prints one JSON object
a declaration; "names" prints for each file the places of its names, and of
each whether it means something of the module rather than of a function or class
(symtable tells); "time" prints the seconds that ast.parse takes for all of them.
"""
import ast
import gc
import io
import json
import sys
import symtable
import time
import tokenize
import warnings

warnings.simplefilter("ignore")


def names_of(target):
    if isinstance(target, ast.Name):
        yield target
    elif isinstance(target, (ast.Tuple, ast.List)):
        for t in target.elts:
            yield from names_of(t)
    elif isinstance(target, ast.Starred):
        yield from names_of(target.value)


def attributes_of(target, self):
    if isinstance(target, ast.Attribute) and isinstance(target.value, ast.Name) and target.value.id == self:
        yield target
    elif isinstance(target, (ast.Tuple, ast.List)):
        for t in target.elts:
            yield from attributes_of(t, self)


def targets_of(node):
    if isinstance(node, ast.Assign):
        return node.targets
    if isinstance(node, ast.AnnAssign):
        return [node.target]
    return []


def blocks_of(node):
    for field in ("body", "orelse", "finalbody"):
        block = getattr(node, field, None)
        if isinstance(block, list):
            yield block
    for part in getattr(node, "handlers", []) + getattr(node, "cases", []):
        yield part.body


def is_text(node):
    return isinstance(node, ast.Expr) and isinstance(node.value, ast.Constant) and isinstance(node.value.value, str)


class File:
    def __init__(self, path, data):
        self.path = path
        self.tree = ast.parse(data)
        encoding, _ = tokenize.detect_encoding(io.BytesIO(data).readline)
        self.lines = data.decode(encoding).splitlines() if b"\x0c" not in data else None
        text = data.decode(encoding)
        self.lines = text.replace("\r\n", "\n").split("\n")
        self.marks = None

    def comments(self):
        """Maps lines to the "#:" comments on them: whether they stand alone, and their column."""
        if self.marks is None:
            self.marks = {}
            if any("#:" in line for line in self.lines):
                source = "\n".join(self.lines) + "\n"
                for token in tokenize.generate_tokens(io.StringIO(source).readline):
                    if token.type == tokenize.COMMENT:
                        alone = token.line.lstrip().startswith("#")
                        self.marks[token.start[0]] = (token.string, alone, token.start[1])
        return self.marks

    def marked(self, node):
        marks = self.comments()
        if not marks:
            return False
        behind = marks.get(node.end_lineno)
        if behind and not behind[1] and behind[0].startswith("#:") and behind[0][2:].strip():
            return True
        line, text = node.lineno - 1, ""
        while line in marks and marks[line][1] and marks[line][2] == node.col_offset and marks[line][0].startswith("#:"):
            text += marks[line][0][2:].strip()
            line -= 1
        return bool(text)

    def emit(self, name, line, scope, params, documented):
        public = not any(part.startswith("_") for part in scope + [name])
        print(json.dumps({
            "file": self.path, "line": line, "name": name, "scope": ".".join(scope),
            "params": params, "documented": documented, "public": public,
        }))

    def block(self, body, scope):
        for i, node in enumerate(body):
            after = body[i + 1] if i + 1 < len(body) else None
            if isinstance(node, (ast.FunctionDef, ast.AsyncFunctionDef)):
                doc = ast.get_docstring(node, clean=False)
                self.emit(node.name, node.lineno, scope, params_of(node.args), bool(doc and doc.strip()))
                if node.name == "__init__" and scope and not is_static(node):
                    self.constructor(node, scope)
            elif isinstance(node, ast.ClassDef):
                doc = ast.get_docstring(node, clean=False)
                self.emit(node.name, node.lineno, scope, None, bool(doc and doc.strip()))
                self.block(node.body, scope + [node.name])
            elif hasattr(ast, "TypeAlias") and isinstance(node, ast.TypeAlias):
                self.emit(node.name.id, node.lineno, scope, None, self.marked(node) or told(after))
            elif isinstance(node, (ast.Assign, ast.AnnAssign)):
                for target in targets_of(node):
                    for name in names_of(target):
                        self.emit(name.id, name.lineno, scope, None, told(after) or self.marked(node))
            else:
                for inner in blocks_of(node):
                    self.block(inner, scope)

    def constructor(self, node, scope):
        args = node.args.posonlyargs + node.args.args
        if not args:
            return
        seen = set()
        found = sorted(self.set_on(node.body, args[0].arg), key=lambda f: (f[0].lineno, f[0].col_offset))
        for target, statement, after in found:
            if target.attr not in seen:
                seen.add(target.attr)
                self.emit(target.attr, target.lineno, scope, None, told(after) or self.marked(statement))

    def set_on(self, body, self_name):
        for i, node in enumerate(body):
            after = body[i + 1] if i + 1 < len(body) else None
            if isinstance(node, (ast.FunctionDef, ast.AsyncFunctionDef, ast.ClassDef)):
                continue
            for target in targets_of(node):
                for attribute in attributes_of(target, self_name):
                    yield attribute, node, after
            for inner in blocks_of(node):
                yield from self.set_on(inner, self_name)


def is_static(node):
    return any(isinstance(d, ast.Name) and d.id == "staticmethod" for d in node.decorator_list)


def told(node):
    return node is not None and is_text(node) and bool(node.value.value.strip())


def params_of(args):
    names = [a.arg for a in args.posonlyargs + args.args]
    if args.vararg:
        names.append("*" + args.vararg.arg)
    names += [a.arg for a in args.kwonlyargs]
    if args.kwarg:
        names.append("**" + args.kwarg.arg)
    return names


SCOPES = {
    ast.FunctionDef: lambda n: n.name,
    ast.AsyncFunctionDef: lambda n: n.name,
    ast.ClassDef: lambda n: n.name,
    ast.Lambda: lambda n: "lambda",
    ast.ListComp: lambda n: "listcomp",
    ast.SetComp: lambda n: "setcomp",
    ast.DictComp: lambda n: "dictcomp",
    ast.GeneratorExp: lambda n: "genexpr",
}


class Names:
    """Walks a tree with the tables of symtable beside it."""

    def __init__(self, data, path):
        self.out = []
        self.lost = False
        table = symtable.symtable(data, path, "exec")
        self.walk(ast.parse(data), table, {})

    def scope(self, node, table, used):
        want = (SCOPES[type(node)](node), node.lineno)
        children = [c for c in table.get_children() if c.get_name() == want[0] and c.get_lineno() == want[1]]
        n = used.get((id(table), want), 0)
        used[(id(table), want)] = n + 1
        if n >= len(children) and node.__class__ in (ast.FunctionDef, ast.AsyncFunctionDef, ast.ClassDef) and node.decorator_list:
            children = [c for c in table.get_children() if c.get_name() == want[0]]
        if n >= len(children):
            self.lost = True
            return table
        return children[n]

    def walk(self, node, table, used):
        if isinstance(node, ast.Name):
            try:
                symbol = table.lookup(node.id)
                outer = symbol.is_global() or table.get_type() == "module"
            except KeyError:  # an annotation that is never evaluated
                return
            self.out.append([node.lineno, node.col_offset, int(outer)])
            return
        if type(node) not in SCOPES:
            for child in ast.iter_child_nodes(node):
                self.walk(child, table, used)
            return
        inner = self.scope(node, table, used)
        outside, inside = [], []
        if isinstance(node, (ast.FunctionDef, ast.AsyncFunctionDef, ast.Lambda)):
            args = node.args
            outside = list(getattr(node, "decorator_list", [])) + args.defaults + [d for d in args.kw_defaults if d]
            every = args.posonlyargs + args.args + args.kwonlyargs + [a for a in (args.vararg, args.kwarg) if a]
            outside += [a.annotation for a in every if a.annotation]
            if getattr(node, "returns", None):
                outside.append(node.returns)
            inside = node.body if isinstance(node.body, list) else [node.body]
        elif isinstance(node, ast.ClassDef):
            outside = node.decorator_list + node.bases + node.keywords
            inside = node.body
        else:
            outside = [node.generators[0].iter]
            inside = [c for c in ast.iter_child_nodes(node)]
        for child in outside:
            self.walk(child, table, used)
        for child in inside:
            if isinstance(child, ast.comprehension):
                parts = [child.target] + child.ifs + ([] if child is node.generators[0] else [child.iter])
                for part in parts:
                    self.walk(part, inner, used)
            else:
                self.walk(child, inner, used)


def main():
    mode = sys.argv[1]
    paths = sys.stdin.read().split("\n")
    spent = 0.0
    for path in paths:
        with open(path, "rb") as f:
            data = f.read()
        if mode == "time":
            begin = time.perf_counter()
            try:
                ast.parse(data)
            except (SyntaxError, ValueError, RecursionError):
                pass
            spent += time.perf_counter() - begin
            continue
        if mode == "names":
            try:
                names = Names(data, path)
                if not names.lost:
                    print(json.dumps({"file": path, "names": names.out}))
            except (SyntaxError, ValueError, RecursionError, UnicodeError, LookupError):
                pass
            continue
        try:
            file = File(path, data)
        except (SyntaxError, ValueError, RecursionError, UnicodeError, LookupError):
            print(json.dumps({"file": path, "refused": True}))
            continue
        file.block(file.tree.body, [])
    if mode == "time":
        print(f"{spent:.6f}")


gc.disable()
main()
