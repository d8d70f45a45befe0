// Command mutants breaks the code in small ways, one at a time, and says which
// of them no test notices. Places are drawn by seed over the folders that -in names.
// The tree stays as it is: each broken file is laid over it for one run alone.
//
// Survivors that change nothing anybody could see are listed with their reason
// in equivalent.txt, a line each: what mutants printed of it, two spaces, why.
package main

import (
	"bufio"
	"bytes"
	"cmp"
	"context"
	"encoding/json"
	"errors"
	"flag"
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"maps"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"time"
)

// A mutant is one small change: the text between two offsets of a file becomes
// another.
type mutant struct {
	file     string
	line     int
	from, to int
	was, is  string
	code     string // its line, for people
}

func (m mutant) String() string {
	return fmt.Sprintf("%s: %s -> %s in `%s`", m.file, m.was, m.is, m.code)
}

var near, figures bool

// suites are the tests that may notice a mutant, the nearest first.
func (m mutant) suites() [][]string {
	own := "./" + filepath.ToSlash(filepath.Dir(m.file))
	if near {
		return [][]string{{own}}
	}
	switch {
	case strings.HasPrefix(own, "./internal/shop"): // a station's tests stand where all of them do
		return [][]string{{own, "./internal/shop"}, {"./internal/httpapi"}}
	case strings.HasPrefix(own, "./internal/httpapi"):
		return [][]string{{"./internal/httpapi"}, {"./internal/attack"}}
	case strings.HasPrefix(own, "./internal/"):
		return [][]string{{own}, {"./internal/shop"}, {"./internal/httpapi"}}
	}
	return [][]string{{own}, {"./core/...", "./internal/verify"}, {"./internal/shop"}}
}

func main() {
	n := flag.Int("n", 40, "how many places")
	seed := flag.Uint64("seed", 1, "of the draw")
	dirs := flag.String("in", "core,internal/shop,internal/httpapi,internal/store,internal/account", "folders, parted by commas")
	since := flag.String("since", "", "a commit: only lines that were added after it")
	list := flag.String("equivalent", "scripts/mutants/equivalent.txt", "survivors that change nothing")
	patience := flag.Duration("patience", 3*time.Minute, "for one run of tests")
	flag.BoolVar(&figures, "figures", false, "change figures alone: whether every constant of docs/model.md is held")
	flag.BoolVar(&near, "near", false, "run the nearest tests alone: quicker, and harder on them")
	flag.Parse()
	if err := run(*n, *seed, strings.Split(*dirs, ","), *since, *list, *patience); err != nil {
		fmt.Fprintln(os.Stderr, "mutants:", err)
		os.Exit(1)
	}
}

func run(n int, seed uint64, dirs []string, since, list string, patience time.Duration) error {
	all, err := find(dirs)
	if err != nil {
		return err
	}
	if since != "" {
		fresh, err := added(since, dirs)
		if err != nil {
			return err
		}
		all = slices.DeleteFunc(all, func(m mutant) bool { return !fresh[fmt.Sprintf("%s:%d", m.file, m.line)] })
	}
	known, err := equivalents(list)
	if err != nil {
		return err
	}
	rand.New(rand.NewPCG(seed, 0)).Shuffle(len(all), func(i, j int) { all[i], all[j] = all[j], all[i] })
	all = all[:min(n, len(all))]
	slices.SortFunc(all, func(a, b mutant) int { return cmp.Or(cmp.Compare(a.file, b.file), cmp.Compare(a.from, b.from)) })
	type count struct{ caught, survived int }
	counts := map[string]*count{}
	for _, m := range all {
		if known[m.String()] {
			fmt.Println("equivalent ", m)
			continue
		}
		c := counts[filepath.Dir(m.file)]
		if c == nil {
			c = &count{}
			counts[filepath.Dir(m.file)] = c
		}
		verdict, err := try(m, patience)
		switch {
		case err != nil:
			return err
		case verdict == "survived":
			c.survived++
		case verdict != "no build":
			c.caught++
		}
		fmt.Printf("%-10s  %s (line %d)\n", verdict, m, m.line)
	}
	var sum count
	for _, dir := range slices.Sorted(maps.Keys(counts)) {
		c := counts[dir]
		sum.caught, sum.survived = sum.caught+c.caught, sum.survived+c.survived
		fmt.Printf("%-18s caught %d of %d\n", dir, c.caught, c.caught+c.survived)
	}
	fmt.Printf("%-18s caught %d of %d\n", "all", sum.caught, sum.caught+sum.survived)
	return nil
}

// added lists the lines that stand in the tree and did not at a commit, as
// file:line.
func added(since string, dirs []string) (map[string]bool, error) {
	out, err := exec.Command("git", append([]string{"diff", "-U0", "--no-prefix", since, "--"}, dirs...)...).Output()
	if err != nil {
		return nil, fmt.Errorf("git diff %s: %w", since, err)
	}
	lines := map[string]bool{}
	file, at := "", 0
	for text := range strings.Lines(string(out)) {
		switch {
		case strings.HasPrefix(text, "+++ "):
			file = strings.TrimSpace(text[4:])
		case strings.HasPrefix(text, "@@ "):
			_, to, _ := strings.Cut(text, "+")
			to, _, _ = strings.Cut(to, " ")
			to, _, _ = strings.Cut(to, ",")
			at, _ = strconv.Atoi(to)
		case strings.HasPrefix(text, "+"):
			lines[fmt.Sprintf("%s:%d", file, at)] = true
			at++
		}
	}
	return lines, nil
}

func equivalents(list string) (map[string]bool, error) {
	out := map[string]bool{}
	file, err := os.Open(list)
	if errors.Is(err, fs.ErrNotExist) {
		return out, nil
	}
	if err != nil {
		return nil, err
	}
	defer file.Close()
	for s := bufio.NewScanner(file); s.Scan(); {
		what, why, ok := strings.Cut(s.Text(), "  ")
		if ok && strings.TrimSpace(why) != "" {
			out[what] = true
		}
	}
	return out, nil
}

// try lays a broken file over the tree and runs what may notice.
func try(m mutant, patience time.Duration) (string, error) {
	src, err := os.ReadFile(m.file)
	if err != nil {
		return "", err
	}
	dir, err := os.MkdirTemp("", "mutant-")
	if err != nil {
		return "", err
	}
	defer os.RemoveAll(dir)
	broken := filepath.Join(dir, filepath.Base(m.file))
	if err := os.WriteFile(broken, slices.Concat(src[:m.from], []byte(m.is), src[m.to:]), 0o600); err != nil {
		return "", err
	}
	path, err := filepath.Abs(m.file)
	if err != nil {
		return "", err
	}
	overlay, err := json.Marshal(map[string]any{"Replace": map[string]string{path: broken}})
	if err != nil {
		return "", err
	}
	over := filepath.Join(dir, "overlay.json")
	if err := os.WriteFile(over, overlay, 0o600); err != nil {
		return "", err
	}
	for _, suite := range m.suites() {
		ctx, cancel := context.WithTimeout(context.Background(), patience)
		out, err := exec.CommandContext(ctx, "go", append([]string{"test", "-failfast", "-overlay", over}, suite...)...).CombinedOutput()
		late := ctx.Err() != nil
		cancel()
		switch {
		case late:
			return "hung", nil // a loop that never ends is noticed
		case err != nil && bytes.Contains(out, []byte("[build failed]")):
			return "no build", nil
		case err != nil:
			return "caught", nil
		}
	}
	return "survived", nil
}

// find lists every mutant of the folders.
func find(dirs []string) ([]mutant, error) {
	var out []mutant
	for _, dir := range dirs {
		err := filepath.WalkDir(dir, func(path string, d fs.DirEntry, err error) error {
			if err != nil || d.IsDir() || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") || strings.HasSuffix(path, ".gen.go") {
				return err
			}
			src, err := os.ReadFile(path)
			if err != nil {
				return err
			}
			some, err := mutate(path, src)
			out = append(out, some...)
			return err
		})
		if err != nil {
			return nil, err
		}
	}
	return out, nil
}

// swaps are operators and what they become.
var swaps = map[token.Token]token.Token{
	token.LSS: token.LEQ, token.LEQ: token.LSS, token.GTR: token.GEQ, token.GEQ: token.GTR, token.EQL: token.NEQ, token.NEQ: token.EQL,
	token.LAND: token.LOR, token.LOR: token.LAND, token.ADD: token.SUB, token.SUB: token.ADD, token.MUL: token.QUO, token.QUO: token.MUL,
}

// mutate lists the mutants of one file: an operator for its neighbour, a number
// off by a fifth, a condition that is not asked.
func mutate(path string, src []byte) ([]mutant, error) {
	set := token.NewFileSet()
	file, err := parser.ParseFile(set, path, src, 0)
	if err != nil {
		return nil, err
	}
	var out []mutant
	add := func(pos, end token.Pos, is string) {
		from, to := set.Position(pos).Offset, set.Position(end).Offset
		line := set.Position(pos).Line
		start := bytes.LastIndexByte(src[:from], '\n') + 1
		stop := from + bytes.IndexByte(append(src[from:len(src):len(src)], '\n'), '\n')
		out = append(out, mutant{path, line, from, to, string(src[from:to]), is, strings.TrimSpace(string(src[start:stop]))})
	}
	strung := func(e ast.Expr) bool { // joins text
		found := false
		ast.Inspect(e, func(n ast.Node) bool {
			if l, ok := n.(*ast.BasicLit); ok && l.Kind == token.STRING {
				found = true
			}
			return !found
		})
		return found
	}
	ast.Inspect(file, func(n ast.Node) bool {
		switch n := n.(type) {
		case *ast.ImportSpec:
			return false
		case *ast.BinaryExpr:
			if is, ok := swaps[n.Op]; ok && !figures && !strung(n) && !isNil(n.Y) {
				add(n.OpPos, n.OpPos+token.Pos(len(n.Op.String())), is.String())
			}
		case *ast.BasicLit:
			v, err := strconv.ParseFloat(strings.ReplaceAll(n.Value, "_", ""), 64)
			if err != nil || v == 0 || n.Kind != token.FLOAT && (n.Kind != token.INT || v < 5) {
				break
			}
			is := strconv.FormatFloat(v*1.2, 'g', -1, 64)
			if n.Kind == token.INT {
				is = strconv.Itoa(int(v*1.2 + 0.5))
			}
			add(n.Pos(), n.End(), is)
		case *ast.IfStmt:
			if b, ok := n.Cond.(*ast.BinaryExpr); !figures && (!ok || !isNil(b.Y)) {
				add(n.Cond.Pos(), n.Cond.End(), "("+string(src[set.Position(n.Cond.Pos()).Offset:set.Position(n.Cond.End()).Offset])+") && false")
			}
		}
		return true
	})
	return out, nil
}

// isNil spares what asks whether there was an error.
func isNil(e ast.Expr) bool {
	id, ok := e.(*ast.Ident)
	return ok && id.Name == "nil"
}
