// Command forms gathers every English form that the server or the core can say
// (package say), and brings the catalogues of internal/locale up to date: a form
// that is new stands there empty, one that the code no longer says is dropped.
//
// It follows values backward from say.Line.Form, through parameters, variables,
// fields, tables and results, without regard to order or branches. What it cannot
// follow (a column of an embedded table) is named in columns.
package main

import (
	"encoding/csv"
	"flag"
	"fmt"
	"go/ast"
	"go/constant"
	"go/token"
	"go/types"
	"maps"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strings"

	"golang.org/x/tools/go/packages"
)

// columns of embedded tables that are said, by file.
var columns = map[string][]string{
	"core/trace/tables/causes.csv": {"label", "remedy"},
	"core/trace/tables/checks.csv": {"label", "how"},
	"core/trace/tables/signs.csv":  {"label"},
}

// unsaid are files whose strings are names or codes that only seem to be said, since
// the flow minds neither order nor branches.
var unsaid = []string{"internal/demo/", "internal/store/", "core/job/words.go"}

// code is a string that stands for a value in records and is never said.
var code = regexp.MustCompile(`^[a-z]+(-[a-z]+)*/[a-z-]+$|^\.?[a-z]*[_.][a-z_.]*$|^(tables|photos)/$|^[a-z-]+\.[0-9a-z.]+$`)

// id is what a material goes by where it has no name.
var id = regexp.MustCompile(`^[a-z]+(-[a-z]+)+$|^mdf$|^osb$`)

// A flow is where values come from.
type flow struct {
	of    *types.Info
	into  map[types.Object][]ast.Expr // what is assigned to a variable, a parameter or a field
	keys  map[types.Object][]ast.Expr // containers whose keys a variable goes over
	gives map[types.Object][]ast.Expr // what a function returns
	lits  map[types.Object]*ast.FuncLit
	later []*ast.CallExpr // calls of functions that were passed on
	words []ast.Expr      // what enumerations that stand in sentences print as
	seen  map[ast.Expr]bool
	said  map[string]string // form to the file that says it
	at    func(token.Pos) string
}

func main() {
	list := flag.Bool("list", false, "print the forms and where each is said, and write nothing")
	flag.Parse()
	said, err := gather()
	if err == nil && *list {
		for _, form := range sorted(said) {
			fmt.Printf("%s\t%q\n", said[form], form)
		}
		return
	}
	if err == nil {
		err = write(said)
	}
	if err != nil {
		fmt.Fprintln(os.Stderr, "forms:", err)
		os.Exit(1)
	}
}

func gather() (map[string]string, error) {
	root, err := os.Getwd()
	if err != nil {
		return nil, err
	}
	all, err := packages.Load(&packages.Config{Mode: packages.NeedName | packages.NeedSyntax | packages.NeedTypes | packages.NeedTypesInfo | packages.NeedImports | packages.NeedDeps}, "./core/...", "./internal/...", "./cmd/...")
	if err != nil {
		return nil, err
	}
	f := &flow{of: &types.Info{Types: map[ast.Expr]types.TypeAndValue{}, Defs: map[*ast.Ident]types.Object{}, Uses: map[*ast.Ident]types.Object{}, Selections: map[*ast.SelectorExpr]*types.Selection{}},
		into: map[types.Object][]ast.Expr{}, keys: map[types.Object][]ast.Expr{}, gives: map[types.Object][]ast.Expr{}, lits: map[types.Object]*ast.FuncLit{}, seen: map[ast.Expr]bool{}, said: map[string]string{}}
	var form types.Object
	for _, p := range all {
		if len(p.Errors) > 0 {
			return nil, fmt.Errorf("%s: %v", p.PkgPath, p.Errors[0])
		}
		for k, v := range p.TypesInfo.Types {
			f.of.Types[k] = v
		}
		for k, v := range p.TypesInfo.Defs {
			f.of.Defs[k] = v
		}
		for k, v := range p.TypesInfo.Uses {
			f.of.Uses[k] = v
		}
		for k, v := range p.TypesInfo.Selections {
			f.of.Selections[k] = v
		}
		f.at = func(pos token.Pos) string {
			name, _ := filepath.Rel(root, p.Fset.Position(pos).Filename)
			return filepath.ToSlash(name)
		}
		if p.PkgPath == "corte/core/say" {
			line := p.Types.Scope().Lookup("Line").Type().Underlying().(*types.Struct)
			form = line.Field(0)
		}
	}
	for _, p := range all {
		for _, file := range p.Syntax {
			f.functions(file)
		}
	}
	for _, p := range all {
		for _, file := range p.Syntax {
			f.assignments(file)
		}
	}
	for _, n := range f.later {
		for _, fn := range f.functionsOf(f.callee(n), map[types.Object]bool{}) {
			f.pass(n, fn)
		}
	}
	for _, e := range append(f.into[form], f.words...) {
		f.collect(e)
	}
	for _, path := range slices.Sorted(maps.Keys(columns)) {
		if err := f.table(path, columns[path]); err != nil {
			return nil, err
		}
	}
	return f.said, nil
}

// functions notes what each function returns, and which literal a variable is.
func (f *flow) functions(file *ast.File) {
	returns := func(obj types.Object, body *ast.BlockStmt) {
		ast.Inspect(body, func(n ast.Node) bool {
			switch n := n.(type) {
			case *ast.FuncLit:
				return false
			case *ast.ReturnStmt:
				f.gives[obj] = append(f.gives[obj], n.Results...)
			}
			return true
		})
	}
	ast.Inspect(file, func(n ast.Node) bool {
		switch n := n.(type) {
		case *ast.FuncDecl:
			if n.Body != nil {
				returns(f.of.Defs[n.Name], n.Body)
			}
		case *ast.AssignStmt:
			for i, right := range n.Rhs {
				if lit, ok := right.(*ast.FuncLit); ok && i < len(n.Lhs) {
					if obj := f.object(n.Lhs[i]); obj != nil {
						f.lits[obj] = lit
						returns(obj, lit.Body)
					}
				}
			}
		}
		return true
	})
}

// object is what an expression names: a variable, a field, or the container of an element.
func (f *flow) object(e ast.Expr) types.Object {
	switch e := ast.Unparen(e).(type) {
	case *ast.Ident:
		if o := f.of.Defs[e]; o != nil {
			return o
		}
		return f.of.Uses[e]
	case *ast.SelectorExpr:
		return f.of.Uses[e.Sel]
	case *ast.IndexExpr:
		return f.object(e.X)
	case *ast.StarExpr:
		return f.object(e.X)
	}
	return nil
}

func (f *flow) assign(to types.Object, e ast.Expr) {
	if v, ok := to.(*types.Var); ok {
		f.into[v.Origin()] = append(f.into[v.Origin()], e)
	}
}

func (f *flow) assignments(file *ast.File) {
	ast.Inspect(file, func(n ast.Node) bool {
		switch n := n.(type) {
		case *ast.AssignStmt:
			for i, left := range n.Lhs {
				f.assign(f.object(left), n.Rhs[min(i, len(n.Rhs)-1)])
			}
		case *ast.ValueSpec:
			for i, name := range n.Names {
				if len(n.Values) > 0 {
					f.assign(f.of.Defs[name], n.Values[min(i, len(n.Values)-1)])
				}
			}
		case *ast.RangeStmt:
			if n.Value != nil {
				f.assign(f.object(n.Value), n.X)
			}
			if k := f.objectOf(n.Key); k != nil {
				f.keys[k] = append(f.keys[k], n.X)
			}
		case *ast.CompositeLit:
			f.literal(n)
		case *ast.CallExpr:
			f.call(n)
		}
		return true
	})
}

func (f *flow) objectOf(e ast.Expr) types.Object {
	if e == nil {
		return nil
	}
	return f.object(e)
}

// literal notes what the fields of a struct are given.
func (f *flow) literal(n *ast.CompositeLit) {
	t := f.of.Types[n].Type
	if p, ok := t.Underlying().(*types.Pointer); ok {
		t = p.Elem()
	}
	s, ok := t.Underlying().(*types.Struct)
	if !ok {
		return
	}
	for i, el := range n.Elts {
		if kv, ok := el.(*ast.KeyValueExpr); ok {
			f.assign(f.of.Uses[kv.Key.(*ast.Ident)], kv.Value)
		} else {
			f.assign(s.Field(i), el)
		}
	}
}

// call notes what the parameters of a function are given.
func (f *flow) call(n *ast.CallExpr) {
	for _, arg := range n.Args {
		f.stringer(arg)
	}
	if v, ok := f.callee(n).(*types.Var); ok && f.lits[v] == nil {
		f.later = append(f.later, n) // a function that was passed on
		return
	}
	f.pass(n, f.callee(n))
}

// pass notes what the parameters of the function that an object stands for are given.
func (f *flow) pass(n *ast.CallExpr, callee types.Object) {
	var params []types.Object
	variadic := false
	if lit := f.lits[callee]; lit != nil {
		for _, field := range lit.Type.Params.List {
			for _, name := range field.Names {
				params = append(params, f.of.Defs[name])
			}
			_, variadic = field.Type.(*ast.Ellipsis)
		}
	} else if fn, ok := callee.(*types.Func); ok {
		sig := fn.Origin().Type().(*types.Signature)
		for i := range sig.Params().Len() {
			params = append(params, sig.Params().At(i))
		}
		variadic = sig.Variadic()
	}
	for i, arg := range n.Args {
		switch {
		case i < len(params):
			f.assign(params[i], arg)
		case variadic && len(params) > 0:
			f.assign(params[len(params)-1], arg)
		}
	}
}

// functionsOf are the variables with a literal that a variable may have its function from.
func (f *flow) functionsOf(v types.Object, seen map[types.Object]bool) (all []types.Object) {
	if v == nil || seen[v] {
		return nil
	}
	seen[v] = true
	if f.lits[v] != nil {
		return []types.Object{v}
	}
	for _, e := range f.into[v] {
		all = append(all, f.functionsOf(f.object(e), seen)...)
	}
	return all
}

func (f *flow) callee(n *ast.CallExpr) types.Object {
	fun := ast.Unparen(n.Fun)
	if ix, ok := fun.(*ast.IndexExpr); ok {
		fun = ix.X
	}
	return f.object(fun)
}

// stringer notes the words of a value that stands in a sentence: an enumeration's names.
func (f *flow) stringer(arg ast.Expr) {
	named, ok := f.of.Types[arg].Type.(*types.Named)
	if !ok || named.Obj().Pkg() == nil || !strings.HasPrefix(named.Obj().Pkg().Path(), "corte/core/") {
		return
	}
	if b, ok := named.Underlying().(*types.Basic); !ok || b.Info()&types.IsInteger == 0 {
		return
	}
	for m := range named.Methods() {
		if m.Name() == "String" {
			f.words = append(f.words, f.gives[m]...)
		}
	}
}

// collect finds the strings that an expression can be.
func (f *flow) collect(e ast.Expr) {
	e = ast.Unparen(e)
	if f.seen[e] {
		return
	}
	f.seen[e] = true
	if v := f.of.Types[e].Value; v != nil {
		if v.Kind() == constant.String {
			f.add(constant.StringVal(v), e.Pos())
		}
		return
	}
	switch e := e.(type) {
	case *ast.Ident, *ast.SelectorExpr, *ast.StarExpr:
		f.follow(f.object(e))
	case *ast.IndexExpr:
		f.collect(e.X)
	case *ast.SliceExpr:
		f.collect(e.X)
	case *ast.CompositeLit:
		if _, ok := f.of.Types[e].Type.Underlying().(*types.Struct); ok {
			return // a field of it may be said, and is followed by itself
		}
		for _, el := range e.Elts {
			if kv, ok := el.(*ast.KeyValueExpr); ok {
				el = kv.Value
			}
			f.collect(el)
		}
	case *ast.BinaryExpr:
		if e.Op == token.ADD {
			f.collect(e.X)
			f.collect(e.Y)
		}
	case *ast.CallExpr:
		f.result(e)
	}
}

func (f *flow) follow(obj types.Object) {
	if v, ok := obj.(*types.Var); ok {
		obj = v.Origin()
	}
	for _, e := range f.into[obj] {
		f.collect(e)
	}
	for _, container := range f.keys[obj] {
		if lit, ok := f.only(container).(*ast.CompositeLit); ok {
			for _, el := range lit.Elts {
				if kv, ok := el.(*ast.KeyValueExpr); ok {
					f.collect(kv.Key)
				}
			}
		}
	}
}

// only is the one literal that a variable holds.
func (f *flow) only(e ast.Expr) ast.Expr {
	if all := f.into[f.object(e)]; len(all) == 1 {
		return all[0]
	}
	return e
}

// result collects what a call gives: a module's function by what it returns, a word of an enumeration
// by its table, and others (of strings, of cmp) by what they are given.
func (f *flow) result(e *ast.CallExpr) {
	fn, _ := f.callee(e).(*types.Func)
	switch {
	case f.of.Types[e.Fun].IsType(): // a conversion
		f.collect(e.Args[0])
	case fn != nil && fn.Pkg() != nil && fn.Pkg().Path() == "corte/core/word" && fn.Name() == "Name":
		if lit, ok := f.only(e.Args[0]).(*ast.CompositeLit); ok {
			for _, el := range lit.Elts {
				if kv, ok := el.(*ast.KeyValueExpr); ok && kv.Key.(*ast.Ident).Name == "Of" {
					f.collect(kv.Value)
				}
			}
		}
	case fn != nil && len(f.gives[fn.Origin()]) > 0:
		for _, r := range f.gives[fn.Origin()] {
			if t := f.of.Types[r].Type; t != nil && textual(t) {
				f.collect(r)
			}
		}
	case fn == nil && f.lits[f.callee(e)] != nil:
		for _, r := range f.gives[f.callee(e)] {
			f.collect(r)
		}
	case fn == nil, fn.Pkg() != nil && (fn.Pkg().Path() == "strings" || fn.Pkg().Path() == "cmp"): // append among them
		for _, a := range e.Args {
			f.collect(a)
		}
	}
}

// textual reports whether a type is a string or several.
func textual(t types.Type) bool {
	if s, ok := t.Underlying().(*types.Slice); ok {
		t = s.Elem()
	}
	return types.Identical(t.Underlying(), types.Typ[types.String])
}

func (f *flow) add(form string, pos token.Pos) {
	if len(verbs.ReplaceAllString(form, "")) == 0 || strings.HasPrefix(form, " ") || strings.HasPrefix(form, ",") {
		return // a piece of a name
	}
	at := f.at(pos)
	if slices.ContainsFunc(unsaid, func(dir string) bool { return strings.HasPrefix(at, dir) }) || code.MatchString(form) || at == "core/material/material.go" && id.MatchString(form) {
		return
	}
	if f.said[form] == "" || at < f.said[form] {
		f.said[form] = at
	}
}

// table collects the columns of an embedded table.
func (f *flow) table(path string, names []string) error {
	file, err := os.Open(path)
	if err != nil {
		return err
	}
	defer file.Close()
	rows, err := csv.NewReader(file).ReadAll()
	if err != nil {
		return err
	}
	for _, name := range names {
		i := slices.Index(rows[0], name)
		if i < 0 {
			return fmt.Errorf("%s has no column %s", path, name)
		}
		for _, row := range rows[1:] {
			form := strings.ReplaceAll(row[i], "%", "%%")
			if f.said[form] == "" {
				f.said[form] = path
			}
		}
	}
	return nil
}
