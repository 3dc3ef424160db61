package golang

import (
	"go/ast"
	"go/token"
	"strconv"

	"codrel/internal/model"
	"codrel/internal/source"
)

// This file walks the top level of a file and makes the occurrences.

func (r *reader) occurrences(tree *ast.File) {
	r.facts.Occurrences = make([]model.Occurrence, 0, countNames(tree))
	for _, d := range tree.Decls {
		switch d := d.(type) {
		case *ast.FuncDecl:
			r.function(d)
		case *ast.GenDecl:
			r.general(d)
		}
	}
}

// countNames is a lower bound of the occurrences, so that the list seldom grows.
func countNames(tree *ast.File) int {
	n := 0
	for _, d := range tree.Decls {
		switch d := d.(type) {
		case *ast.FuncDecl:
			n++
		case *ast.GenDecl:
			for _, s := range d.Specs {
				switch s := s.(type) {
				case *ast.ValueSpec:
					n += len(s.Names)
				case *ast.TypeSpec:
					n++
					if t, ok := s.Type.(*ast.StructType); ok && t.Fields != nil {
						n += len(t.Fields.List)
					}
				}
			}
		}
	}
	return n
}

// add appends an occurrence and returns its index; a pointer would not survive the next add.
func (r *reader) add(o model.Occurrence, name *ast.Ident) int32 {
	o.Name = r.ident(name)
	start := r.offset(name.Pos())
	o.NameSpan = source.Span{Start: start, End: min(start+int32(len(o.Name)), int32(len(r.text)))}
	o.Line = int32(r.facts.Lines.Line(start))
	o.Visibility = model.PackageWide
	if ast.IsExported(o.Name) {
		o.Visibility = model.Public
	}
	if o.Doc != nil {
		o.Deprecated = deprecates(o.Doc.Text)
	}
	r.facts.Occurrences = append(r.facts.Occurrences, o)
	return int32(len(r.facts.Occurrences) - 1)
}

func (r *reader) function(d *ast.FuncDecl) {
	o := model.Occurrence{Kind: model.KindFunction, Parent: -1, Span: r.span(d)}
	if d.Body != nil {
		o.Span.End = max(o.Span.Start, r.offset(d.Type.End()))
	}
	var directives []model.Directive
	o.Doc, directives = r.doc(d.Doc)
	if d.Recv != nil && len(d.Recv.List) > 0 {
		o.Kind = model.KindMethod
		base := receiverBase(d.Recv.List[0].Type)
		if base != nil {
			o.Scope = r.ident(base)
		}
	}
	r.sig.begin(r)
	r.sig.function(d)
	o.Callable = r.sig.callable()
	o.Variadic = isVariadic(o.Callable)
	o.Extra = model.NewExtra(r.sig.typeParams, nil, directives)
	o.Signature = r.sig.take()
	r.add(o, d.Name)
}

func isVariadic(c *model.Callable) bool {
	return len(c.Params) > 0 && c.Params[len(c.Params)-1].Variadic
}

// receiverBase is the name of the type that a method belongs to.
func receiverBase(e ast.Expr) *ast.Ident {
	name, _ := core(e).(*ast.Ident)
	return name
}

// core is what a type such as "*(T[K])" is made of: "T".
func core(e ast.Expr) ast.Expr {
	for {
		switch x := e.(type) {
		case *ast.StarExpr:
			e = x.X
		case *ast.ParenExpr:
			e = x.X
		case *ast.IndexExpr:
			e = x.X
		case *ast.IndexListExpr:
			e = x.X
		default:
			return e
		}
	}
}

// receiverTypeParams yields the type parameters that "func (t *T[K, V])" names.
func receiverTypeParams(e ast.Expr) []ast.Expr {
	for {
		switch x := e.(type) {
		case *ast.StarExpr:
			e = x.X
		case *ast.ParenExpr:
			e = x.X
		case *ast.IndexExpr:
			return []ast.Expr{x.Index}
		case *ast.IndexListExpr:
			return x.Indices
		default:
			return nil
		}
	}
}

func (r *reader) general(d *ast.GenDecl) {
	if d.Tok != token.CONST && d.Tok != token.VAR && d.Tok != token.TYPE {
		return
	}
	group, groupDirectives := r.doc(d.Doc)
	var last *ast.ValueSpec // the constant whose values and type are repeated
	for i, s := range d.Specs {
		g := specGroup{decl: d, index: i, doc: group, directives: groupDirectives}
		switch s := s.(type) {
		case *ast.ValueSpec:
			if d.Tok == token.CONST {
				if s.Type != nil || len(s.Values) > 0 {
					last = s
				}
				r.values(g, s, last)
			} else {
				r.values(g, s, s)
			}
		case *ast.TypeSpec:
			r.typeSpec(g, s)
		}
	}
}

// specGroup is the declaration that a spec stands in, with or without parentheses.
type specGroup struct {
	decl       *ast.GenDecl
	index      int
	doc        *model.Doc
	directives []model.Directive
}

// comment gives a spec its comment: its own, or the group's where the group has
// this spec alone; otherwise the group's is kept apart. The directives are those of both.
func (g specGroup) comment(o *model.Occurrence, own *model.Doc, directives []model.Directive) []model.Directive {
	o.Doc = own
	if len(g.decl.Specs) == 1 {
		if own == nil {
			o.Doc = g.doc
		}
	} else {
		o.GroupDoc = g.doc
	}
	return append(directives[:len(directives):len(directives)], g.directives...)
}

func (g specGroup) span(r *reader, spec ast.Node) source.Span {
	if !g.decl.Lparen.IsValid() {
		return r.span(g.decl)
	}
	return r.span(spec)
}

func (r *reader) values(g specGroup, s, repeated *ast.ValueSpec) {
	own, directives := r.docOrTrailing(s.Doc, s.Comment)
	kind, word := model.KindVariable, "var "
	if g.decl.Tok == token.CONST {
		kind, word = model.KindConstant, "const "
	}
	for i, name := range s.Names {
		o := model.Occurrence{Kind: kind, Parent: -1, Span: g.span(r, s)}
		o.Extra = model.NewExtra(nil, nil, g.comment(&o, own, directives))
		r.sig.begin(r)
		r.sig.value(word, name, i, s, repeated, g.index)
		o.Signature = r.sig.take()
		r.add(o, name)
	}
}

func (r *reader) typeSpec(g specGroup, s *ast.TypeSpec) {
	o := model.Occurrence{Kind: model.KindType, Parent: -1, Span: g.span(r, s)}
	own, directives := r.doc(s.Doc)
	directives = g.comment(&o, own, directives)
	switch s.Type.(type) {
	case *ast.StructType:
		o.Kind = model.KindStruct
	case *ast.InterfaceType:
		o.Kind = model.KindInterface
	}
	if s.Assign.IsValid() {
		o.Kind = model.KindType
	}
	r.sig.begin(r)
	r.sig.typeSpec(s)
	o.Extra = model.NewExtra(r.sig.typeParams, r.sig.bases, directives)
	o.Signature = r.sig.take()
	at := r.add(o, s.Name)
	r.members(s.Type, at, r.ident(s.Name), s.TypeParams)
}

// members adds the fields and methods inside a type, at any depth of
// anonymous types.
func (r *reader) members(t ast.Expr, parent int32, scope string, params *ast.FieldList) {
	if r.nested >= deepest {
		if !r.cutShort && hasMembers(t) {
			r.cutShort = true
			r.facts.Unreadable(r.span(t), "deep", strconv.Itoa(deepest), "Go")
		}
		return
	}
	r.nested++
	defer func() { r.nested-- }()
	switch t := t.(type) {
	case *ast.StructType:
		r.fields(t.Fields, parent, scope, params)
	case *ast.InterfaceType:
		r.methods(t.Methods, parent, scope, params)
	default:
		if inner := element(t); inner != nil {
			r.members(inner, parent, scope, params)
		}
	}
}

// element is the type that a pointer, list, map or channel is made of, or nil.
func element(t ast.Expr) ast.Expr {
	switch t := t.(type) {
	case *ast.StarExpr:
		return t.X
	case *ast.ParenExpr:
		return t.X
	case *ast.ArrayType:
		return t.Elt
	case *ast.MapType:
		return t.Value
	case *ast.ChanType:
		return t.Value
	}
	return nil
}

func (r *reader) fields(list *ast.FieldList, parent int32, scope string, params *ast.FieldList) {
	if list == nil {
		return
	}
	for _, f := range list.List {
		doc, directives := r.docOrTrailing(f.Doc, f.Comment)
		names, embedded := f.Names, false
		if len(names) == 0 {
			name := embeddedName(f.Type)
			if name == nil {
				continue
			}
			names, embedded = []*ast.Ident{name}, true
		}
		for _, name := range names {
			o := model.Occurrence{Kind: model.KindField, Parent: parent, Scope: scope, Span: r.span(f), Doc: doc, Embedded: embedded}
			r.sig.begin(r)
			r.sig.outer(params)
			r.sig.field(name, f, embedded)
			o.Extra = model.NewExtra(nil, r.sig.bases, directives)
			o.Signature = r.sig.take()
			at := r.add(o, name)
			if hasMembers(f.Type) {
				r.members(f.Type, at, scope+"."+r.ident(name), params)
			}
		}
	}
}

// hasMembers reports whether a type, or what it is made of, lists members: for most fields
// no scope need be made.
func hasMembers(t ast.Expr) bool {
	for t != nil {
		switch t.(type) {
		case *ast.StructType, *ast.InterfaceType:
			return true
		}
		t = element(t)
	}
	return false
}

// embeddedName is the field name that an embedded type gives.
func embeddedName(t ast.Expr) *ast.Ident {
	switch x := core(t).(type) {
	case *ast.Ident:
		return x
	case *ast.SelectorExpr:
		return x.Sel
	}
	return nil
}

// methods adds the methods of an interface; what it embeds is among its bases.
func (r *reader) methods(list *ast.FieldList, parent int32, scope string, params *ast.FieldList) {
	if list == nil {
		return
	}
	for _, f := range list.List {
		ftype, ok := f.Type.(*ast.FuncType)
		if !ok || len(f.Names) == 0 {
			continue
		}
		doc, directives := r.docOrTrailing(f.Doc, f.Comment)
		for _, name := range f.Names {
			o := model.Occurrence{Kind: model.KindMethod, Parent: parent, Scope: scope, Span: r.span(f), Doc: doc}
			r.sig.begin(r)
			r.sig.outer(params)
			r.sig.interfaceMethod(name, ftype)
			o.Extra = model.NewExtra(nil, nil, directives)
			o.Callable = r.sig.callable()
			o.Variadic = isVariadic(o.Callable)
			o.Signature = r.sig.take()
			r.add(o, name)
		}
	}
}
