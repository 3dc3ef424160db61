package golang

import (
	"go/ast"
	"go/token"

	"codrel/internal/model"
	"codrel/internal/source"
)

// This file visits expressions and statements in the order of the source, and
// opens a scope for each block (Go specification, "Blocks").

func (w *insideWalk) exprs(list []ast.Expr) {
	for _, e := range list {
		w.expr(e)
	}
}

func (w *insideWalk) expr(e ast.Expr) {
	switch x := e.(type) {
	case *ast.Ident:
		w.use(x)
	case *ast.SelectorExpr:
		w.selector(x)
	case *ast.CallExpr:
		w.expr(x.Fun)
		w.exprs(x.Args)
	case *ast.StarExpr:
		w.expr(x.X)
	case *ast.UnaryExpr:
		w.expr(x.X)
	case *ast.BinaryExpr:
		w.expr(x.X)
		w.expr(x.Y)
	case *ast.ParenExpr:
		w.expr(x.X)
	case *ast.IndexExpr:
		w.expr(x.X)
		w.expr(x.Index)
	case *ast.IndexListExpr:
		w.expr(x.X)
		w.exprs(x.Indices)
	case *ast.SliceExpr:
		w.exprs([]ast.Expr{x.X, x.Low, x.High, x.Max})
	case *ast.TypeAssertExpr:
		w.expr(x.X)
		w.expr(x.Type)
	case *ast.CompositeLit:
		w.literal(x)
	case *ast.KeyValueExpr:
		w.expr(x.Key)
		w.expr(x.Value)
	case *ast.FuncLit:
		w.scope(func() {
			w.signature(x.Type)
			w.body(x.Body)
		})
	case *ast.Ellipsis:
		w.expr(x.Elt)
	case *ast.ArrayType:
		w.expr(x.Len)
		w.expr(x.Elt)
	case *ast.MapType:
		w.expr(x.Key)
		w.expr(x.Value)
	case *ast.ChanType:
		w.expr(x.Value)
	case *ast.FuncType:
		w.scope(func() { w.signature(x) })
	case *ast.StructType:
		w.fieldTypes(x.Fields)
	case *ast.InterfaceType:
		w.fieldTypes(x.Methods)
	}
}

// literal walks "T{...}". Keys of struct literals name fields, keys of others
// are values; the type alone tells, and it may be written elsewhere.
func (w *insideWalk) literal(x *ast.CompositeLit) {
	w.expr(x.Type)
	var named source.Span
	switch x.Type.(type) {
	case *ast.Ident, *ast.SelectorExpr, *ast.IndexExpr, *ast.IndexListExpr:
		named = w.typeName(x.Type)
	}
	_, list := x.Type.(*ast.ArrayType)
	_, table := x.Type.(*ast.MapType)
	for _, e := range x.Elts {
		pair, ok := e.(*ast.KeyValueExpr)
		if !ok {
			w.expr(e)
			continue
		}
		key, isName := pair.Key.(*ast.Ident)
		switch {
		case !isName || list || table:
			w.expr(pair.Key)
		case named.Empty(): // a struct or a table: nobody knows
		case w.r.cut(key) == key.Name:
			w.out.Uses.Add(model.Use{Form: model.UseKey, Span: w.r.span(key), Type: named})
		}
		w.expr(pair.Value)
	}
}

func (w *insideWalk) stmts(list []ast.Stmt) {
	for _, s := range list {
		w.stmt(s)
	}
}

func (w *insideWalk) block(b *ast.BlockStmt) {
	if b != nil {
		w.scope(func() { w.stmts(b.List) })
	}
}

func (w *insideWalk) stmt(s ast.Stmt) {
	switch s := s.(type) {
	case *ast.ExprStmt:
		w.expr(s.X)
	case *ast.AssignStmt:
		w.assign(s)
	case *ast.DeclStmt:
		if d, ok := s.Decl.(*ast.GenDecl); ok {
			w.general(d, true)
		}
	case *ast.ReturnStmt:
		w.exprs(s.Results)
	case *ast.BlockStmt:
		w.block(s)
	case *ast.IfStmt:
		w.scope(func() {
			w.stmt(s.Init)
			w.expr(s.Cond)
			w.block(s.Body)
			w.stmt(s.Else)
		})
	case *ast.ForStmt:
		w.scope(func() {
			w.stmt(s.Init)
			w.expr(s.Cond)
			w.stmt(s.Post)
			w.block(s.Body)
		})
	case *ast.RangeStmt:
		w.scope(func() { w.rangeLoop(s) })
	case *ast.SwitchStmt:
		w.scope(func() {
			w.stmt(s.Init)
			w.expr(s.Tag)
			w.block(s.Body)
		})
	case *ast.TypeSwitchStmt:
		w.scope(func() {
			w.stmt(s.Init)
			w.stmt(s.Assign)
			w.block(s.Body)
		})
	case *ast.SelectStmt:
		w.block(s.Body)
	case *ast.CaseClause:
		w.scope(func() {
			w.exprs(s.List)
			w.stmts(s.Body)
		})
	case *ast.CommClause:
		w.scope(func() {
			w.stmt(s.Comm)
			w.stmts(s.Body)
		})
	case *ast.GoStmt:
		w.expr(s.Call)
	case *ast.DeferStmt:
		w.expr(s.Call)
	case *ast.SendStmt:
		w.expr(s.Chan)
		w.expr(s.Value)
	case *ast.IncDecStmt:
		w.expr(s.X)
	case *ast.LabeledStmt:
		w.stmt(s.Stmt)
	}
}

// assign walks an assignment. The names that ":=" declares are known behind it.
func (w *insideWalk) assign(s *ast.AssignStmt) {
	if s.Tok != token.DEFINE {
		w.exprs(s.Lhs)
		w.exprs(s.Rhs)
		return
	}
	w.exprs(s.Rhs)
	for i, e := range s.Lhs {
		id, ok := e.(*ast.Ident)
		if !ok {
			continue
		}
		var typ source.Span
		if i < len(s.Rhs) {
			typ = w.valueType(s.Rhs[i]) // of "x, ok := y.(T)" too
		}
		w.declare(id.Name, typ)
	}
}

func (w *insideWalk) rangeLoop(s *ast.RangeStmt) {
	if s.Tok != token.DEFINE {
		w.expr(s.Key)
		w.expr(s.Value)
	}
	w.expr(s.X)
	if s.Tok == token.DEFINE {
		w.declareExpr(s.Key)
		w.declareExpr(s.Value)
	}
	w.block(s.Body)
}
