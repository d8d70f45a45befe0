// Command licences collects the licences of everything that is shipped: the Go
// modules of the binaries as go-licenses finds them, the scripts of the front
// end as Vite finds them (web/dist/licences.json), fonts and the worker's parts,
// which neither sees, and Go itself. It ends with 1 where one is not among those
// that may be shipped.
package main

import (
	"encoding/json"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"

	"corte/internal/licences"
)

// shippable may be shipped with a program under Apache-2.0, with their text.
var shippable = []string{"Apache-2.0", "BSD-2-Clause", "BSD-3-Clause", "ISC", "MIT", "OFL-1.1"}

const out = "internal/licences/shipped.json"

func main() {
	if err := run(); err != nil {
		fmt.Fprintln(os.Stderr, "licences:", err)
		os.Exit(1)
	}
}

func run() error {
	all, err := modules()
	if err != nil {
		return err
	}
	scripts, err := scripts()
	if err != nil {
		return err
	}
	all = append(all, scripts...)
	for _, of := range []string{"@fontsource-variable/*", "workbox-core", "workbox-precaching", "workbox-routing", "workbox-strategies"} {
		more, err := packages("web/node_modules/" + of)
		if err != nil {
			return err
		}
		all = append(all, more...)
	}
	slices.SortFunc(all, func(a, b licences.Licence) int { return strings.Compare(a.Name+" "+a.Version, b.Name+" "+b.Version) })
	all = slices.CompactFunc(all, func(a, b licences.Licence) bool { return a.Name == b.Name && a.Version == b.Version })
	for _, l := range all {
		if !slices.Contains(shippable, l.Licence) || len(l.Text) < 200 {
			return fmt.Errorf("%s %s is under %q with a text of %d letters; see whether it may be shipped", l.Name, l.Version, l.Licence, len(l.Text))
		}
	}
	raw, err := json.MarshalIndent(all, "", " ")
	if err != nil {
		return err
	}
	return os.WriteFile(out, append(raw, '\n'), 0o644)
}

// modules are those of the binaries, with Go itself, whose version is that of
// the build.
func modules() ([]licences.Licence, error) {
	report := exec.Command("go", "tool", "-modfile=scripts/licences/tools.mod", "go-licenses", "report", "./cmd/corte", "./cmd/corte-gauge", "--ignore", "corte", "--template", "scripts/licences/modules.tpl")
	raw, err := report.Output()
	if err != nil {
		return nil, fmt.Errorf("go-licenses: %w", err)
	}
	var found []struct{ Name, Version, Licence, Path string }
	if err := json.Unmarshal(raw, &found); err != nil {
		return nil, err
	}
	root, err := exec.Command("go", "env", "GOROOT").Output()
	if err != nil {
		return nil, err
	}
	found = append(found, struct{ Name, Version, Licence, Path string }{"Go", "", "BSD-3-Clause", filepath.Join(strings.TrimSpace(string(root)), "LICENSE")})
	out := make([]licences.Licence, len(found))
	for i, f := range found {
		text, err := os.ReadFile(f.Path)
		if err != nil {
			return nil, err
		}
		out[i] = licences.Licence{Name: f.Name, Version: f.Version, Licence: f.Licence, Text: string(text)}
	}
	return out, nil
}

func scripts() (out []licences.Licence, err error) {
	raw, err := os.ReadFile("web/dist/licences.json")
	if err != nil {
		return nil, err
	}
	var found []struct{ Name, Version, Identifier, Text string }
	if err := json.Unmarshal(raw, &found); err != nil {
		return nil, err
	}
	for _, f := range found {
		out = append(out, licences.Licence{Name: f.Name, Version: f.Version, Licence: f.Identifier, Text: f.Text})
	}
	return out, nil
}

// packages are those of npm at a path, with their licence as they name it.
func packages(pattern string) (out []licences.Licence, err error) {
	dirs, err := filepath.Glob(pattern)
	if err == nil && len(dirs) == 0 {
		err = fmt.Errorf("there is nothing at %s", pattern)
	}
	if err != nil {
		return nil, err
	}
	for _, dir := range dirs {
		var p struct{ Name, Version, License string }
		raw, err := os.ReadFile(filepath.Join(dir, "package.json"))
		if err == nil {
			err = json.Unmarshal(raw, &p)
		}
		if err != nil {
			return nil, err
		}
		text, err := os.ReadFile(filepath.Join(dir, "LICENSE"))
		if err != nil {
			return nil, err
		}
		out = append(out, licences.Licence{Name: p.Name, Version: p.Version, Licence: p.License, Text: string(text)})
	}
	return out, nil
}
