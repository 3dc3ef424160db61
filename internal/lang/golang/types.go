package golang

import (
	"go/ast"

	"codrel/internal/model"
)

// This file puts type expressions into a signature.

// deepest is how deep types nest in a signature, and how deep the members of
// types without names are listed. Code written by people stays far below;
// without a bound the text of deep nests would grow with the square of the depth.
const deepest = 32

// expr puts one type expression. What is no type (the length of an array, a
// broken piece) is put as written.
func (s *signature) expr(e ast.Expr) {
	if s.depth >= deepest {
		s.put(model.TokenLiteral, "…")
		return
	}
	s.depth++
	defer func() { s.depth-- }()
	switch x := e.(type) {
	case *ast.Ident:
		s.typeName(x)
	case *ast.SelectorExpr:
		s.qualified(x)
	case *ast.StarExpr:
		s.mark("*")
		s.expr(x.X)
	case *ast.ParenExpr:
		s.mark("(")
		s.expr(x.X)
		s.mark(")")
	case *ast.ArrayType:
		s.array(x)
	case *ast.MapType:
		s.put(model.TokenKeyword, "map")
		s.mark("[")
		s.expr(x.Key)
		s.mark("]")
		s.expr(x.Value)
	case *ast.ChanType:
		s.channel(x)
	case *ast.FuncType:
		s.put(model.TokenKeyword, "func")
		s.funcType(x)
	case *ast.StructType:
		s.structLiteral(x)
	case *ast.InterfaceType:
		s.interfaceLiteral(x)
	case *ast.Ellipsis:
		s.mark("...")
		if x.Elt != nil {
			s.expr(x.Elt)
		}
	case *ast.IndexExpr:
		s.expr(x.X)
		s.mark("[")
		s.expr(x.Index)
		s.mark("]")
	case *ast.IndexListExpr:
		s.expr(x.X)
		s.mark("[")
		for i, index := range x.Indices {
			if i > 0 {
				s.mark(", ")
			}
			s.expr(index)
		}
		s.mark("]")
	case *ast.UnaryExpr: // ~T in a type set
		s.mark(x.Op.String())
		s.expr(x.X)
	case *ast.BinaryExpr: // A | B in a type set
		s.expr(x.X)
		s.mark(" " + x.Op.String() + " ")
		s.expr(x.Y)
	case nil:
	default:
		s.shortValue(e)
	}
}

func (s *signature) array(x *ast.ArrayType) {
	s.mark("[")
	switch n := x.Len.(type) {
	case nil:
	case *ast.Ellipsis:
		s.mark("...")
	default:
		s.put(model.TokenValue, s.r.cut(n))
	}
	s.mark("]")
	s.expr(x.Elt)
}

func (s *signature) channel(x *ast.ChanType) {
	switch x.Dir {
	case ast.RECV:
		s.mark("<-")
		s.put(model.TokenKeyword, "chan")
	case ast.SEND:
		s.put(model.TokenKeyword, "chan")
		s.mark("<-")
	default:
		s.put(model.TokenKeyword, "chan")
	}
	s.mark(" ")
	s.expr(x.Value)
}

// funcType puts parameters and results of a function type inside another
// signature; they are not the declaration's own.
func (s *signature) funcType(x *ast.FuncType) {
	params, results := s.params, s.results
	s.parametersAndResults(x)
	s.params, s.results = params, results
}

func (s *signature) structLiteral(x *ast.StructType) {
	s.put(model.TokenKeyword, "struct")
	if x.Fields == nil || len(x.Fields.List) == 0 {
		s.mark("{}")
		return
	}
	s.mark("{ ")
	for i, f := range x.Fields.List {
		if i > 0 {
			s.mark("; ")
		}
		s.names(f.Names, model.TokenField)
		if len(f.Names) > 0 {
			s.mark(" ")
		}
		s.expr(f.Type)
	}
	s.mark(" }")
}

func (s *signature) interfaceLiteral(x *ast.InterfaceType) {
	s.put(model.TokenKeyword, "interface")
	if x.Methods == nil || len(x.Methods.List) == 0 {
		s.mark("{}")
		return
	}
	s.mark("{ ")
	for i, f := range x.Methods.List {
		if i > 0 {
			s.mark("; ")
		}
		if t, ok := f.Type.(*ast.FuncType); ok && len(f.Names) > 0 {
			s.put(model.TokenField, s.r.ident(f.Names[0]))
			s.funcType(t)
			continue
		}
		s.expr(f.Type)
	}
	s.mark(" }")
}
