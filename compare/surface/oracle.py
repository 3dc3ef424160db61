"""Says what the users of Python packages can name, as Python itself has it.

Names of packages and modules come on standard input, one a line. Each is imported with
all that lies below it, and one JSON object is printed: the modules that users may import,
and of each the names that it gives them, whether Python finds a text, the parameters, and
the members of classes with those of their bases. What a module in C declares is left out,
since there is no source that could be read, and so are names out of other packages.
"""
import ast, importlib, importlib.util, inspect, io, json, os, pkgutil, signal, sys, types, warnings

warnings.simplefilter("ignore")
sys.argv = ["x"]
out = os.fdopen(os.dup(1), "w")
os.dup2(2, 1)  # modules print when they are imported


def timed(seconds, work):
    def late(*_):
        raise TimeoutError
    signal.signal(signal.SIGALRM, late)
    signal.alarm(seconds)
    try:
        return work()
    except (Exception, SystemExit, KeyboardInterrupt):
        return None
    finally:
        signal.alarm(0)


def kept(path):
    return any(p.startswith("_") or p in ("tests", "test", "testing", "conftest", "idlelib", "lib2to3") or p.startswith("test_") for p in path.split("."))


def stored(s):
    """The names that an assignment binds."""
    for t in s.targets if isinstance(s, ast.Assign) else [s.target]:
        for n in ast.walk(t):
            if isinstance(n, ast.Name) and isinstance(n.ctx, ast.Store):
                yield n.id


trees = {}


def tree(module):
    """The names that the source of a module assigns, imports and declares at its top."""
    if module.__name__ in trees:
        return trees[module.__name__]
    own, taken, origin = set(), set(), {}
    try:
        with open(module.__file__, "rb") as f:
            body = ast.parse(f.read()).body
    except Exception:
        trees[module.__name__] = None
        return None

    def look(body):
        for s in body:
            if isinstance(s, (ast.FunctionDef, ast.AsyncFunctionDef, ast.ClassDef)):
                own.add(s.name)
            elif isinstance(s, (ast.Assign, ast.AnnAssign)):
                own.update(stored(s))
            elif isinstance(s, ast.ImportFrom):
                for a in s.names:
                    taken.add(a.asname or a.name)
                    path = ("." * s.level) + (s.module or "")
                    if a.name == "*":
                        origin.setdefault("*", []).append(path)
                    else:
                        origin[a.asname or a.name] = path
            elif isinstance(s, (ast.If, ast.Try, ast.With)):
                for part in ("body", "orelse", "finalbody"):
                    look(getattr(s, part, []))
                for h in getattr(s, "handlers", []):
                    look(h.body)
    look(body)
    trees[module.__name__] = (own, taken, origin)
    return trees[module.__name__]


def python_source(name):
    m = sys.modules.get(name)
    return m is not None and str(getattr(m, "__file__", "")).endswith(".py")


def parameters(o):
    f = inspect.unwrap(o) if callable(o) else o
    if isinstance(f, (staticmethod, classmethod)):
        f = f.__func__
    if isinstance(f, types.MethodType):
        f = f.__func__
    if not isinstance(f, types.FunctionType):
        return None
    c = f.__code__
    n = c.co_argcount + c.co_kwonlyargcount + bool(c.co_flags & 4) + bool(c.co_flags & 8)
    return list(c.co_varnames[:n])


def text(o, member_of=None):
    if isinstance(o, (staticmethod, classmethod)):
        o = o.__func__
    if member_of is not None and not isinstance(o, (types.FunctionType, property)):
        return False  # a value that happens to be a class, or to be called, has not its text here
    if isinstance(o, (type, types.FunctionType, types.MethodType, property)) or callable(o) and hasattr(o, "__name__"):
        doc = getattr(o, "__doc__", None)
        if isinstance(o, type) and isinstance(doc, str) and (doc.startswith(o.__name__ + "(") or doc == "An enumeration."):
            return False  # what the library of dataclasses, tuples and enumerations writes
        return isinstance(doc, str) and doc.strip() != ""
    return False


def in_body(cls):
    """The names that the body of a class declares in its source."""
    m = sys.modules.get(cls.__module__)
    if m is None:
        return None
    if ("classes", m.__name__) not in trees:
        found = {}
        try:
            with open(m.__file__, "rb") as f:
                whole = ast.parse(f.read())
        except Exception:
            whole = ast.Module([], [])

        def walk(body, scope):
            for s in body:
                if isinstance(s, ast.ClassDef):
                    names = found.setdefault(".".join(scope + [s.name]), set())
                    if not any(isinstance(b, ast.Starred) for b in s.bases):
                        written[m.__name__, ".".join(scope + [s.name])] = len(s.bases)
                    declared(s.body, names)
                    walk(s.body, scope + [s.name])
                elif isinstance(s, (ast.If, ast.Try, ast.With)):
                    for part in ("body", "orelse", "finalbody"):
                        walk(getattr(s, part, []), scope)
                    for h in getattr(s, "handlers", []):
                        walk(h.body, scope)

        def declared(body, names):
            for s in body:
                if isinstance(s, (ast.FunctionDef, ast.AsyncFunctionDef, ast.ClassDef)):
                    names.add(s.name)
                elif isinstance(s, (ast.Assign, ast.AnnAssign)):
                    names.update(stored(s))
                elif isinstance(s, (ast.If, ast.Try, ast.With, ast.For)):
                    for part in ("body", "orelse", "finalbody"):
                        declared(getattr(s, part, []), names)
                    for h in getattr(s, "handlers", []):
                        declared(h.body, names)
        walk(whole.body, [])
        trees[("classes", m.__name__)] = found
    return trees[("classes", m.__name__)].get(cls.__qualname__)


written = {}  # of classes: how many bases their statement has


def late(cls):
    """The classes that running code made bases of a class, and theirs."""
    out = set()
    for c in cls.__mro__:
        in_body(c)
        n = written.get((c.__module__, c.__qualname__))
        if n and len(c.__bases__) > n:
            out.update(*(b.__mro__ for b in c.__bases__[n:]))
    return out - {object}


def members(cls, top):
    found = []
    added = late(cls)
    for name in dir(cls):
        if name.startswith("_"):
            continue
        for base in cls.__mro__:
            if name in vars(base):
                break
        else:
            continue
        if base.__module__.split(".")[0] != top or not python_source(base.__module__):
            continue
        value = vars(base)[name]
        body = in_body(base)
        made = body is None or name not in body or base in added  # by code that runs: no reader of source sees it
        found.append({"name": name, "text": text(value, cls), "params": parameters(value), "inherited": base is not cls, "from": base.__qualname__, "made": made})
    return found


def named(module, name, value, top, listed):
    """Whether a module gives a name to its users, and out of a source that can be read."""
    got = tree(module)
    if isinstance(value, types.ModuleType) or got is None:
        return False
    own, taken, _ = got
    home = getattr(value, "__module__", None) if isinstance(value, (type, types.FunctionType)) else None
    if home is not None and (home.split(".")[0] != top or not python_source(home)):
        return False
    if listed:
        return home is not None or name in own or seen_below(module, name, top)
    if name in own:
        return home is None or name in own
    package = hasattr(module, "__path__")
    passes = not [n for n in own if not n.startswith("_")] and not listed
    if not package and not passes:
        return False
    return home is not None or seen_below(module, name, top)


def reached(module, name, depth=0):
    """Whether the source of a module itself says that it has a name: no code need run to know."""
    got = tree(module)
    if got is None or depth > 6:
        return False
    own, taken, origin = got
    if name in own or name in taken:
        return True
    for other in origin.get("*", []):
        try:
            m = sys.modules.get(importlib.util.resolve_name(other, module.__name__ if hasattr(module, "__path__") else module.__name__.rpartition(".")[0]))
        except Exception:
            m = None
        if m is not None and reached(m, name, depth + 1):
            return True
    return False


def assigned(module, name):
    """Whether the source of a module that has a name assigns it, as to what a function makes."""
    return any(got and name in got[0] for got in (tree(m) for m in [module]))


def declared(value):
    """Whether the source of a class's or function's module declares it."""
    m = sys.modules.get(getattr(value, "__module__", None) or "")
    got = tree(m) if m is not None else None
    return got is not None and value.__qualname__.split(".")[0] in got[0]


def seen_below(module, name, top):
    """Whether a name that is no class or function is assigned in a module that this one takes names from."""
    for other in list(sys.modules.values()):
        n = getattr(other, "__name__", "")
        if isinstance(n, str) and n.split(".")[0] == top and name in vars(other) and python_source(n):
            got = tree(other)
            if got and name in got[0] and vars(other)[name] is vars(module)[name]:
                return True
    return False


def surface(top):
    root = timed(20, lambda: importlib.import_module(top))
    if root is None:
        return None
    modules = [root]
    if hasattr(root, "__path__"):
        for info in timed(200, lambda: list(pkgutil.walk_packages(root.__path__, top + ".", onerror=lambda _: None))) or []:
            if kept(info.name) or info.name.endswith("__main__"):
                continue
            m = timed(20, lambda: importlib.import_module(info.name))
            if m is not None and getattr(m, "__name__", None) == info.name:
                modules.append(m)
    found = []
    for m in modules:
        if not python_source(m.__name__):
            continue
        listed = getattr(m, "__all__", None)
        listed = [n for n in listed if isinstance(n, str)] if isinstance(listed, (list, tuple)) else None
        names = []
        for name in listed if listed is not None else [n for n in vars(m) if not n.startswith("_")]:
            if name not in vars(m):
                continue
            value = vars(m)[name]
            if not named(m, name, value, top, listed is not None):
                continue
            kind = "class" if isinstance(value, type) else "function" if isinstance(value, types.FunctionType) else "value"
            names.append({"name": name, "called": getattr(value, "__name__", name) if kind != "value" else name, "kind": kind,
                          "text": text(value) if kind != "value" else False, "params": parameters(value) if kind == "function" else None,
                          "members": members(value, top) if kind == "class" else [],
                          "made": not reached(m, name) or kind != "value" and not declared(value) and not assigned(m, name)})
        found.append({"as": m.__name__, "file": m.__file__, "names": names})
    return {"folder": os.path.dirname(root.__file__) if hasattr(root, "__path__") else root.__file__, "name": top, "entries": found}


for line in sys.stdin:
    result = surface(line.strip())
    if result is None:
        print("cannot import", line.strip(), file=sys.stderr)
        continue
    out.write(json.dumps(result) + "\n")
    out.flush()
os._exit(0)
