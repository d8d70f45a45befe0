// Package material has the properties of each material that the model needs:
// craft section 13, model section 6.
package material

import (
	"corte/core/fault"
	"corte/core/word"
)

// A Kind decides which blades may cut a material at all (craft section 13).
type Kind uint8

const (
	Softwood Kind = iota
	Hardwood
	Plywood   // veneers: somewhere across the grain
	Composite // chips or fibre: abrasive
	Laminate  // a brittle face on a board
	Nailed    // wood with nails or grit in it
	SoftMetal // aluminium, brass, copper, lead
	Plastic   // acrylic and the like
	SolidSurface
	CementBoard
	Mineral // tile, brick, stone
	Steel
)

//corte:enum Kind
var kindNames = word.Names{Kind: "kind of material", Of: []string{"softwood", "hardwood", "plywood", "composite", "laminate", "nailed",
	"soft-metal", "plastic", "solid-surface", "cement-board", "mineral", "steel"}}

// Modelled reports whether the feed-window model holds: for wood and boards
// made of it. Everything else is chosen by rule.
func (k Kind) Modelled() bool { return k <= Laminate }

// Sheet reports whether the material comes as sheets, with no one grain.
func (k Kind) Sheet() bool { return k == Plywood || k == Composite || k == Laminate }

// Fibres reports whether the material has fibres that can break out or lift.
func (k Kind) Fibres() bool { return k <= Plywood || k == Nailed }

// A Material is what is cut. Where Kind is not modelled only ID, Name, Kind,
// Density and Source are set.
type Material struct {
	ID, Name   string
	Kind       Kind
	Density    float64 // kg/m³
	ScorchDose float64 // J/cm² that brown a wall along the grain in half of all cuts
	Abrasion   float64 // wear of an edge against cherry = 1
	Resin      float64 // pitch left on the blade against yellow pine = 2.5
	MAcross    float64 // proneness to splinter across the grain
	MAlong     float64 // the same along the grain
	Source     string  // where the numbers come from
	Foil       bool    // a metal foil on its face, which conducts
}

// String is what it is called.
func (m Material) String() string { return m.Name }

// Get finds a material by its ID.
func Get(id string) (Material, error) {
	i, ok := index[id]
	if !ok {
		return Material{}, fault.At("", "%q is not a material Corte knows", id)
	}
	return table[i], nil
}

// Name is what a material is called; the id of one that is not in the table.
func Name(id string) string {
	if m, err := Get(id); err == nil {
		return m.Name
	}
	return id
}

// All returns every material, woods first. The caller owns the slice.
func All() []Material { return append([]Material(nil), table...) }

var index = func() map[string]int {
	m := make(map[string]int, len(table))
	for i, r := range table {
		m[r.ID] = i
	}
	return m
}()

// Source notes. The base rows are the model's own calibration; every further
// row is placed on the same scale from its density and its nearest kin there,
// since no shop measures a scorch dose.
const (
	base  = "From the model's table, matched to everyday shop experience."
	kin   = "Density from handbooks. Burning, wear and tear-out estimated from "
	rules = "Blades for it are chosen by rule. Density from handbooks."
)

var table = []Material{
	{"white-pine", "white pine", Softwood, 400, 20, 0.8, 2.0, 1.15, 0.25, base, false},
	{"yellow-pine", "yellow pine", Softwood, 590, 19, 0.9, 2.5, 1.20, 0.30, base, false},
	{"spruce", "spruce", Softwood, 430, 20, 0.8, 1.6, 1.20, 0.30, kin + "white pine: stringier, less resin.", false},
	{"douglas-fir", "Douglas fir", Softwood, 520, 19, 0.9, 2.0, 1.35, 0.35, kin + "the two pines: its hard late wood lifts where the teeth exit.", false},
	{"cedar", "red cedar", Softwood, 380, 17, 0.7, 0.9, 1.25, 0.30, kin + "white pine: oilier and more brittle.", false},
	{"larch", "larch", Softwood, 580, 19, 0.9, 2.3, 1.25, 0.30, kin + "yellow pine.", false},

	{"cherry", "cherry", Hardwood, 560, 11, 1.0, 0.6, 0.80, 0.15, base, false},
	{"hard-maple", "hard maple", Hardwood, 705, 14, 1.1, 0.3, 0.75, 0.15, base, false},
	{"soft-maple", "soft maple", Hardwood, 600, 15, 1.0, 0.3, 0.80, 0.15, kin + "hard maple: lighter, and its sugar burns nearly as soon.", false},
	{"red-oak", "red oak", Hardwood, 700, 24, 1.1, 0.3, 1.00, 0.25, base, false},
	{"white-oak", "white oak", Hardwood, 755, 23, 1.2, 0.3, 0.95, 0.25, kin + "red oak: denser, with closed pores.", false},
	{"ash", "ash", Hardwood, 670, 23, 1.0, 0.3, 1.00, 0.25, kin + "red oak.", false},
	{"beech", "beech", Hardwood, 720, 17, 1.0, 0.3, 0.80, 0.15, kin + "hard maple and oak: it burns, but later than maple.", false},
	{"birch", "birch", Hardwood, 650, 18, 1.0, 0.3, 0.90, 0.20, kin + "beech: finer.", false},
	{"poplar", "poplar", Hardwood, 450, 21, 0.8, 0.3, 0.95, 0.25, kin + "walnut: softer and woolly.", false},
	{"walnut", "walnut", Hardwood, 610, 22, 1.0, 0.3, 0.85, 0.15, base, false},
	{"mahogany", "mahogany", Hardwood, 550, 21, 1.0, 0.4, 0.85, 0.20, kin + "walnut.", false},
	{"teak", "teak", Hardwood, 640, 17, 2.2, 1.2, 0.90, 0.20, kin + "walnut: silica wears more, and oil builds up and burns.", false},
	{"purpleheart", "purpleheart", Hardwood, 880, 13, 1.4, 0.8, 0.90, 0.20, base, false},
	{"bamboo", "bamboo board", Hardwood, 700, 19, 1.8, 0.5, 1.30, 0.35, kin + "red oak by weight: silica wears more, and long fibers lift.", false},

	{"softwood-ply", "softwood ply", Plywood, 550, 24, 1.8, 0.8, 1.80, 1.40, base, false},
	{"hardwood-ply", "hardwood ply", Plywood, 600, 22, 1.8, 0.4, 1.70, 1.35, kin + "birch plywood: thinner faces on a softer core.", false},
	{"birch-ply", "birch ply", Plywood, 680, 21, 2.0, 0.3, 1.40, 1.10, base, false},
	{"phenolic-ply", "phenolic-faced ply", Plywood, 720, 21, 2.6, 0.3, 1.80, 1.60, kin + "birch plywood: a brittle, abrasive film on top.", false},
	{"blockboard", "blockboard", Plywood, 500, 22, 1.3, 0.6, 1.60, 1.25, kin + "softwood plywood: its core is solid.", false},
	{"mdf", "MDF", Composite, 750, 22, 3.0, 0.4, 0.35, 0.35, base, false},
	{"hardboard", "hardboard", Composite, 950, 21, 2.8, 0.4, 0.40, 0.40, kin + "MDF: denser.", false},
	{"chipboard", "chipboard", Composite, 660, 23, 3.2, 0.4, 1.20, 1.20, kin + "MDF: wears alike, and coarse chips break out.", false},
	{"osb", "strand board", Composite, 620, 23, 2.4, 0.7, 1.50, 1.40, kin + "softwood plywood and chipboard.", false},
	{"melamine-board", "melamine board", Laminate, 700, 22, 3.5, 0.3, 2.20, 2.20, base, false},
	{"laminate-board", "laminate-faced board", Laminate, 780, 21, 3.6, 0.3, 2.00, 2.00, kin + "melamine board: a thicker and tougher face.", false},
	{"foil-board", "foil-faced board", Laminate, 680, 22, 3.0, 0.3, 1.20, 1.20, kin + "MDF and chipboard: a foil on top chips more than it tears.", true},
	{"veneered-board", "veneered board", Laminate, 700, 21, 3.0, 0.3, 1.70, 1.40, kin + "MDF: a hardwood veneer on top.", false},

	{ID: "nailed-wood", Name: "wood with nails", Kind: Nailed, Density: 550, Source: rules},
	{ID: "aluminium", Name: "aluminium", Kind: SoftMetal, Density: 2700, Source: rules},
	{ID: "brass", Name: "brass", Kind: SoftMetal, Density: 8500, Source: rules},
	{ID: "copper", Name: "copper", Kind: SoftMetal, Density: 8960, Source: rules},
	{ID: "acrylic", Name: "acrylic", Kind: Plastic, Density: 1190, Source: rules},
	{ID: "polycarbonate", Name: "polycarbonate", Kind: Plastic, Density: 1200, Source: rules},
	{ID: "rigid-pvc", Name: "rigid PVC", Kind: Plastic, Density: 1400, Source: rules},
	{ID: "solid-surface", Name: "solid surface", Kind: SolidSurface, Density: 1700, Source: rules},
	{ID: "cement-board", Name: "cement board", Kind: CementBoard, Density: 1300, Source: rules},
	{ID: "tile", Name: "tile", Kind: Mineral, Density: 2300, Source: rules},
	{ID: "brick", Name: "brick", Kind: Mineral, Density: 1900, Source: rules},
	{ID: "stone", Name: "stone", Kind: Mineral, Density: 2700, Source: rules},
	{ID: "steel", Name: "steel", Kind: Steel, Density: 7850, Source: rules},
}
