package job

import (
	"corte/core/cut"
	"corte/core/material"
	"sort"
	"strings"
)

// What people call materials beside their names in the table.
var alsoCalled = map[string]string{
	"pine": "white-pine", "softwood": "white-pine", "deal": "white-pine", "southern pine": "yellow-pine", "fir": "douglas-fir", "western red cedar": "cedar",
	"maple": "hard-maple", "oak": "red-oak", "purple heart": "purpleheart", "bamboo": "bamboo",
	"ply": "softwood-ply", "plywood": "softwood-ply", "softwood plywood": "softwood-ply", "hardwood plywood": "hardwood-ply",
	"birch plywood": "birch-ply", "baltic birch": "birch-ply", "film-faced ply": "phenolic-ply", "fibreboard": "mdf", "fiberboard": "mdf",
	"particle board": "chipboard", "particleboard": "chipboard", "osb": "osb", "melamine": "melamine-board", "laminate": "laminate-board", "laminated board": "laminate-board",
	"foil board": "foil-board", "veneered": "veneered-board", "aluminum": "aluminium", "perspex": "acrylic", "pvc": "rigid-pvc",
}

// A called is a name and what it stands for.
type called struct{ name, id string }

// materialNames are all names of materials, the longest first, so that "birch
// ply" is not read as birch.
var materialNames = func() []called {
	var all []called
	for _, m := range material.All() {
		all = append(all, called{strings.ToLower(m.Name), m.ID})
		if spaced := strings.ReplaceAll(m.ID, "-", " "); spaced != strings.ToLower(m.Name) {
			all = append(all, called{spaced, m.ID})
		}
	}
	for name, id := range alsoCalled {
		if _, err := material.Get(id); err == nil {
			all = append(all, called{name, id})
		}
	}
	sort.Slice(all, func(i, j int) bool {
		if a, b := len(all[i].name), len(all[j].name); a != b {
			return a > b
		}
		return all[i].name < all[j].name
	})
	return all
}()

// What people say for a direction, a finish, a form and a stage.
var (
	directionWords = map[string]cut.Direction{
		"rip": cut.Rip, "rips": cut.Rip, "ripped": cut.Rip, "along": cut.Rip, "with the grain": cut.Rip, "to width": cut.Rip,
		"crosscut": cut.Crosscut, "cross-cut": cut.Crosscut, "crosscuts": cut.Crosscut, "across": cut.Crosscut, "to length": cut.Crosscut, "docked": cut.Crosscut,
		"sheet": cut.Sheet,
	}
	finishWords = map[string]cut.Finish{
		"rough": cut.Rough, "oversize": cut.Rough, "hidden": cut.Hidden, "glue": cut.Hidden, "glue line": cut.Hidden,
		"show": cut.Show, "shown": cut.Show, "seen": cut.Show, "fine": cut.Fine, "finished": cut.Fine,
	}
	formWords = map[string]cut.Form{
		"groove": cut.Groove, "grooves": cut.Groove, "grooved": cut.Groove, "dado": cut.Groove, "dados": cut.Groove, "housing": cut.Groove, "trench": cut.Groove,
		"rabbet": cut.Rabbet, "rabbets": cut.Rabbet, "rebate": cut.Rabbet, "rebates": cut.Rabbet,
		"cheek": cut.Cheek, "cheeks": cut.Cheek, "tenon": cut.Cheek, "tenons": cut.Cheek, "fold": cut.Fold,
	}
	moistureWords = map[string]cut.Moisture{"dry": cut.Dry, "wet": cut.Wet, "green": cut.Wet, "frozen": cut.Frozen}
	sameWords     = []string{"same as above", "as above", "same", "ditto"}
)
