package golang

import (
	"go/ast"
	"go/token"
	"strconv"
	"strings"

	"codrel/internal/lexing"
	"codrel/internal/model"
	"codrel/internal/source"
)

// signature builds the tokens of one declaration. One builder serves a whole file.
type signature struct {
	r          *reader
	arena      *lexing.Arena
	start      int
	depth      int      // of nested types
	typeNames  []string // type parameters in scope: they never link
	receiver   model.Tokens
	params     []model.Param
	results    []model.Param
	typeParams []model.Param
	bases      []model.Base
}

func (s *signature) begin(r *reader) {
	s.r = r
	s.start = s.arena.Begin()
	s.typeNames = s.typeNames[:0]
	s.receiver, s.params, s.results, s.typeParams, s.bases = "", nil, nil, nil, nil
}

func (s *signature) take() model.Tokens { return s.arena.Since(s.start) }

func (s *signature) put(kind model.TokenKind, text string) { s.arena.Put(kind, text) }

func (s *signature) mark(text string) { s.put(model.TokenPunctuation, text) }

// part runs build and returns the tokens that it put.
func (s *signature) part(build func()) model.Tokens {
	from := s.arena.Mark()
	build()
	return s.arena.Since(from)
}

func (s *signature) callable() *model.Callable {
	return &model.Callable{Params: s.params, Results: s.results, Receiver: s.receiver}
}

// outer declares the type parameters of an enclosing type.
func (s *signature) outer(list *ast.FieldList) {
	if list == nil {
		return
	}
	for _, f := range list.List {
		for _, n := range f.Names {
			s.typeNames = append(s.typeNames, n.Name)
		}
	}
}

// function puts "func (recv) Name[T any](params) results".
func (s *signature) function(d *ast.FuncDecl) {
	s.put(model.TokenKeyword, "func ")
	if d.Recv != nil && len(d.Recv.List) > 0 {
		s.putReceiver(d.Recv.List[0])
	}
	s.put(model.TokenName, s.r.ident(d.Name))
	s.typeParameters(d.Type.TypeParams)
	s.parametersAndResults(d.Type)
}

func (s *signature) putReceiver(f *ast.Field) {
	for _, e := range receiverTypeParams(f.Type) {
		s.declareTypeName(e)
	}
	s.mark("(")
	if len(f.Names) > 0 {
		s.put(model.TokenParameter, s.r.ident(f.Names[0]))
		s.mark(" ")
	}
	s.receiver = s.part(func() { s.expr(f.Type) })
	s.mark(") ")
}

func (s *signature) declareTypeName(e ast.Expr) {
	if id, ok := e.(*ast.Ident); ok {
		s.typeNames = append(s.typeNames, id.Name)
	}
}

// names puts the names that share a type.
func (s *signature) names(list []*ast.Ident, kind model.TokenKind) {
	for i, n := range list {
		if i > 0 {
			s.mark(", ")
		}
		s.put(kind, s.r.ident(n))
	}
}

func (s *signature) typeParameters(list *ast.FieldList) {
	if list == nil || len(list.List) == 0 {
		return
	}
	s.outer(list)
	s.mark("[")
	for i, f := range list.List {
		if i > 0 {
			s.mark(", ")
		}
		s.names(f.Names, model.TokenTypeParam)
		s.mark(" ")
		constraint := s.part(func() { s.expr(f.Type) })
		for _, n := range f.Names {
			s.typeParams = append(s.typeParams, model.Param{Name: s.r.ident(n), Type: constraint})
		}
	}
	s.mark("]")
}

func (s *signature) parametersAndResults(t *ast.FuncType) {
	s.mark("(")
	if t.Params != nil {
		s.params = s.fieldList(t.Params, true)
	}
	s.mark(")")
	if t.Results == nil || len(t.Results.List) == 0 {
		return
	}
	s.mark(" ")
	bare := len(t.Results.List) == 1 && len(t.Results.List[0].Names) == 0
	if !bare {
		s.mark("(")
	}
	s.results = s.fieldList(t.Results, false)
	if !bare {
		s.mark(")")
	}
}

// fieldList puts parameters or results and lists them one by one.
func (s *signature) fieldList(list *ast.FieldList, params bool) []model.Param {
	out := make([]model.Param, 0, list.NumFields())
	for i, f := range list.List {
		if i > 0 {
			s.mark(", ")
		}
		s.names(f.Names, model.TokenParameter)
		if len(f.Names) > 0 {
			s.mark(" ")
		}
		_, variadic := f.Type.(*ast.Ellipsis)
		typed := s.part(func() { s.expr(f.Type) })
		for _, n := range f.Names {
			out = append(out, model.Param{Name: s.r.ident(n), Type: typed, Variadic: variadic && params})
		}
		if len(f.Names) == 0 {
			out = append(out, model.Param{Name: "_", Type: typed, Variadic: variadic && params})
		}
	}
	return out
}

func (s *signature) interfaceMethod(name *ast.Ident, t *ast.FuncType) {
	s.put(model.TokenName, s.r.ident(name))
	s.parametersAndResults(t)
}

func (s *signature) field(name *ast.Ident, f *ast.Field, embedded bool) {
	if embedded {
		typed := s.part(func() { s.expr(f.Type) })
		s.bases = append(s.bases, model.Base{Type: typed, Span: s.r.span(f.Type), How: model.Embeds})
	} else {
		s.put(model.TokenName, s.r.ident(name))
		s.mark(" ")
		s.expr(f.Type)
	}
	if f.Tag != nil {
		s.mark(" ")
		s.put(model.TokenLiteral, s.r.cut(f.Tag))
	}
}

// value puts "const Name Type = value". A constant without a value repeats the
// one above it; its place in the group is then what "iota" stands for.
func (s *signature) value(word string, name *ast.Ident, i int, own, repeated *ast.ValueSpec, index int) {
	s.put(model.TokenKeyword, word)
	s.put(model.TokenName, s.r.ident(name))
	if repeated == nil {
		return
	}
	if repeated.Type != nil {
		s.mark(" ")
		s.expr(repeated.Type)
	}
	if i >= len(repeated.Values) {
		return
	}
	value := repeated.Values[i]
	s.mark(" = ")
	if word == "const " && usesIota(value) {
		s.iota(value, index, own != repeated)
		return
	}
	s.shortValue(value)
}

// iota puts a value that counts: the number where the expression is "iota"
// alone, else what is written, and beside a repeated one what iota is there.
func (s *signature) iota(value ast.Expr, index int, repeated bool) {
	if id, ok := value.(*ast.Ident); ok && id.Name == "iota" {
		s.put(model.TokenLiteral, strconv.Itoa(index))
		return
	}
	s.shortValue(value)
	if repeated {
		s.mark(" // iota = ")
		s.put(model.TokenLiteral, strconv.Itoa(index))
	}
}

func usesIota(e ast.Expr) bool {
	found := false
	ast.Inspect(e, func(n ast.Node) bool {
		if id, ok := n.(*ast.Ident); ok && id.Name == "iota" {
			found = true
		}
		return !found
	})
	return found
}

// longestValue is how much of a value a signature shows, in bytes; what is
// longer says little on a plate and stands in the source.
const longestValue = 72

func (s *signature) shortValue(value ast.Expr) {
	switch v := value.(type) {
	case *ast.CompositeLit:
		if v.Type != nil {
			s.expr(v.Type)
		}
		s.mark("{…}")
		return
	case *ast.FuncLit:
		s.put(model.TokenKeyword, "func")
		s.funcType(v.Type)
		s.mark(" {…}")
		return
	case *ast.UnaryExpr:
		if lit, ok := v.X.(*ast.CompositeLit); ok && v.Op == token.AND {
			s.mark("&")
			s.shortValue(lit)
			return
		}
	}
	text := s.r.cut(value)
	if line, _, more := strings.Cut(text, "\n"); more || len(text) > longestValue {
		text = cutRunes(strings.TrimRight(line, "\r"), longestValue) + " …"
	}
	s.put(model.TokenLiteral, text)
}

func cutRunes(text string, limit int) string {
	if len(text) <= limit {
		return text
	}
	for limit > 0 && text[limit]&0xC0 == 0x80 {
		limit--
	}
	return text[:limit]
}

func (s *signature) typeSpec(t *ast.TypeSpec) {
	s.put(model.TokenKeyword, "type ")
	s.put(model.TokenName, s.r.ident(t.Name))
	s.typeParameters(t.TypeParams)
	if t.Assign.IsValid() {
		s.mark(" =")
	}
	s.mark(" ")
	switch x := t.Type.(type) {
	case *ast.StructType:
		s.put(model.TokenKeyword, "struct")
	case *ast.InterfaceType:
		s.put(model.TokenKeyword, "interface")
		s.interfaceBases(x)
	default:
		s.expr(t.Type)
	}
}

// interfaceBases keeps embedded interfaces and type sets: they have no name of
// their own, so they are no members, but they belong to what the type is.
func (s *signature) interfaceBases(t *ast.InterfaceType) {
	if t.Methods == nil {
		return
	}
	first := true
	for _, f := range t.Methods.List {
		if _, method := f.Type.(*ast.FuncType); method && len(f.Names) > 0 {
			continue
		}
		if first {
			s.mark(" { ")
		} else {
			s.mark("; ")
		}
		first = false
		typed := s.part(func() { s.expr(f.Type) })
		s.bases = append(s.bases, model.Base{Type: typed, Span: s.r.span(f.Type), How: model.Embeds})
	}
	if !first {
		s.mark(" }")
	}
}

func (s *signature) typeName(id *ast.Ident) {
	name := s.r.ident(id)
	for _, p := range s.typeNames {
		if p == name {
			s.put(model.TokenTypeParam, name)
			return
		}
	}
	s.put(model.TokenType, name)
}

// qualified puts "pkg.Name" as one token where it is written without a gap.
func (s *signature) qualified(x *ast.SelectorExpr) {
	if _, ok := x.X.(*ast.Ident); !ok {
		s.expr(x.X)
		s.mark(".")
		s.put(model.TokenType, s.r.ident(x.Sel))
		return
	}
	text := source.Span{Start: s.r.offset(x.Pos()), End: s.r.offset(x.Sel.End())}.In(s.r.text)
	if strings.ContainsAny(text, " \t\r\n/") {
		text = x.X.(*ast.Ident).Name + "." + x.Sel.Name
	}
	s.put(model.TokenType, text)
}
