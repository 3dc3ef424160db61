package golang

import (
	"go/ast"
	"go/token"

	"codrel/internal/model"
	"codrel/internal/source"
)

// This file finds what the code of a file uses. No types are checked: a name
// that a function declares itself is no use, and a name behind a "." is one
// where the type of what stands before it is written in the same function.

// inside walks the whole tree.
func (r *reader) inside(tree *ast.File) *model.Inside {
	w := insideWalk{r: r, out: &model.Inside{}, innermost: map[string]int32{}}
	for _, d := range tree.Decls {
		switch d := d.(type) {
		case *ast.FuncDecl:
			w.function(d)
		case *ast.GenDecl:
			w.general(d, false)
		}
	}
	return w.out
}

type insideWalk struct {
	r         *reader
	out       *model.Inside
	locals    []local
	innermost map[string]int32 // by name: index in locals, from 1
	functions int              // around what is walked
}

// local is a name that a function declares.
type local struct {
	name  string
	typ   source.Span // of its type's name, where that is written
	outer int32       // the local of the same name that it hides: index from 1, or 0
}

func (w *insideWalk) declare(name string, typ source.Span) {
	if name == "_" {
		return
	}
	w.locals = append(w.locals, local{name: name, typ: typ, outer: w.innermost[name]})
	w.innermost[name] = int32(len(w.locals))
}

// scope runs walk and forgets the locals that it declared.
func (w *insideWalk) scope(walk func()) {
	from := len(w.locals)
	walk()
	for i := len(w.locals) - 1; i >= from; i-- {
		l := w.locals[i]
		if l.outer == 0 {
			delete(w.innermost, l.name)
		} else {
			w.innermost[l.name] = l.outer
		}
	}
	w.locals = w.locals[:from]
}

func (w *insideWalk) local(name string) *local {
	if i := w.innermost[name]; i > 0 {
		return &w.locals[i-1]
	}
	return nil
}

func (w *insideWalk) function(d *ast.FuncDecl) {
	w.scope(func() {
		if d.Recv != nil {
			for _, f := range d.Recv.List {
				for _, e := range receiverTypeParams(f.Type) {
					w.declareExpr(e)
				}
				w.expr(f.Type)
				w.declareField(f)
			}
		}
		w.signature(d.Type)
		w.body(d.Body)
	})
}

func (w *insideWalk) declareExpr(e ast.Expr) {
	if id, ok := e.(*ast.Ident); ok {
		w.declare(id.Name, source.Span{})
	}
}

// signature walks parameters and results: their names are declared when all
// types were seen, since no type can mean one of them.
func (w *insideWalk) signature(t *ast.FuncType) {
	w.typeParams(t.TypeParams)
	w.fieldTypes(t.Params)
	w.fieldTypes(t.Results)
	var named []local
	for _, list := range []*ast.FieldList{t.Params, t.Results} {
		if list == nil {
			continue
		}
		for _, f := range list.List {
			typ := w.typeName(f.Type)
			for _, n := range f.Names {
				named = append(named, local{name: n.Name, typ: typ})
			}
		}
	}
	for _, l := range named {
		w.declare(l.name, l.typ)
	}
}

func (w *insideWalk) typeParams(list *ast.FieldList) {
	if list == nil {
		return
	}
	for _, f := range list.List {
		for _, n := range f.Names {
			w.declare(n.Name, source.Span{})
		}
	}
	w.fieldTypes(list)
}

func (w *insideWalk) fieldTypes(list *ast.FieldList) {
	if list != nil {
		for _, f := range list.List {
			w.expr(f.Type)
		}
	}
}

func (w *insideWalk) declareField(f *ast.Field) {
	typ := w.typeName(f.Type)
	for _, n := range f.Names {
		w.declare(n.Name, typ)
	}
}

func (w *insideWalk) body(b *ast.BlockStmt) {
	if b == nil {
		return
	}
	if w.functions == 0 {
		w.out.Bodies = append(w.out.Bodies, w.r.span(b))
	}
	w.functions++
	w.stmts(b.List)
	w.functions--
}

// typeName is the span of the name in a type such as "*berth.Plan[T]", or
// nothing where the type has none, or where it is a local's.
func (w *insideWalk) typeName(e ast.Expr) source.Span {
	switch x := core(e).(type) {
	case *ast.Ident:
		if w.local(x.Name) == nil {
			return w.r.span(x)
		}
	case *ast.SelectorExpr:
		if span, ok := w.qualified(x); ok {
			return span
		}
	}
	return source.Span{}
}

// qualified is the span of "a.B" where a is no local.
func (w *insideWalk) qualified(x *ast.SelectorExpr) (source.Span, bool) {
	id, ok := x.X.(*ast.Ident)
	if !ok || w.local(id.Name) != nil {
		return source.Span{}, false
	}
	span := w.r.span(x)
	return span, span.Len() == len(id.Name)+1+len(x.Sel.Name)
}

// valueType is the type that an expression is written to have: "T{}", "&T{}",
// "new(T)", "x.(T)".
func (w *insideWalk) valueType(e ast.Expr) source.Span {
	switch x := e.(type) {
	case *ast.UnaryExpr:
		if lit, ok := x.X.(*ast.CompositeLit); ok && x.Op == token.AND && lit.Type != nil {
			return w.typeName(lit.Type)
		}
	case *ast.CompositeLit:
		if x.Type != nil {
			return w.typeName(x.Type)
		}
	case *ast.TypeAssertExpr:
		if x.Type != nil {
			return w.typeName(x.Type)
		}
	case *ast.CallExpr:
		if id, ok := x.Fun.(*ast.Ident); ok && id.Name == "new" && len(x.Args) == 1 && w.local("new") == nil {
			return w.typeName(x.Args[0])
		}
	}
	return source.Span{}
}

// general walks a declaration of constants, variables or types; inner tells
// that it stands in a function.
func (w *insideWalk) general(d *ast.GenDecl, inner bool) {
	for _, s := range d.Specs {
		switch s := s.(type) {
		case *ast.ValueSpec:
			if s.Type != nil {
				w.expr(s.Type)
			}
			w.exprs(s.Values)
			if inner {
				w.declareValues(s)
			}
		case *ast.TypeSpec:
			if inner {
				w.declare(s.Name.Name, source.Span{})
			}
			w.scope(func() {
				w.typeParams(s.TypeParams)
				w.expr(s.Type)
			})
		}
	}
}

func (w *insideWalk) declareValues(s *ast.ValueSpec) {
	for i, n := range s.Names {
		var typ source.Span
		switch {
		case s.Type != nil:
			typ = w.typeName(s.Type)
		case len(s.Values) == len(s.Names):
			typ = w.valueType(s.Values[i])
		}
		w.declare(n.Name, typ)
	}
}

// use notes a bare name.
func (w *insideWalk) use(id *ast.Ident) {
	if id.Name == "_" || w.local(id.Name) != nil {
		return
	}
	span := w.r.span(id)
	if span.In(w.r.text) == id.Name {
		w.out.Uses.Add(model.Use{Form: model.UseBare, Span: span})
	}
}

// selector notes "a.B": a qualified name, or a member of a local whose type is written.
func (w *insideWalk) selector(x *ast.SelectorExpr) {
	if span, ok := w.qualified(x); ok {
		w.out.Uses.Add(model.Use{Form: model.UseQualified, Span: span})
		return
	}
	w.expr(x.X)
	typ := w.ownerType(x.X)
	if span := w.r.span(x.Sel); !typ.Empty() && span.In(w.r.text) == x.Sel.Name && x.Sel.Name != "_" {
		w.out.Uses.Add(model.Use{Form: model.UseMember, Span: span, Type: typ})
	}
}

func (w *insideWalk) ownerType(e ast.Expr) source.Span {
	for {
		switch x := e.(type) {
		case *ast.ParenExpr:
			e = x.X
		case *ast.StarExpr:
			e = x.X
		case *ast.Ident:
			if l := w.local(x.Name); l != nil {
				return l.typ
			}
			return source.Span{}
		default:
			return w.valueType(e)
		}
	}
}
