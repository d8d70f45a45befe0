package store

import (
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"corte/core/care"
	"corte/core/groove"
	"corte/core/measure"
	"corte/core/saw"
	"corte/core/truing"
)

// What is kept as JSON has small types of its own, with the names that it is
// kept under and a version, so that a field of the core may be renamed and
// nothing is lost. testdata/stored holds each of them as it was once written.

const storedVersion = 1

type storedBelief struct {
	Shift  float64 `json:"shift"`
	Gained float64 `json:"gained"`
}

type storedCondition struct {
	V            int          `json:"v"`
	WearM2       float64      `json:"wear_m2"`
	ResinM2      float64      `json:"resin_m2"`
	ToldM2       float64      `json:"told_m2"`
	ToldResinM2  float64      `json:"told_resin_m2"`
	MetresSharp  float64      `json:"metres_sharp"`
	MetresWashed float64      `json:"metres_washed"`
	Metres       float64      `json:"metres"`
	Cuts         int          `json:"cuts"`
	CutsSharp    int          `json:"cuts_sharp"`
	CutsWashed   int          `json:"cuts_washed"`
	Sharpenings  int          `json:"sharpenings"`
	Washes       int          `json:"washes"`
	SharpFrom    *time.Time   `json:"sharp_from,omitempty"`
	WashFrom     *time.Time   `json:"wash_from,omitempty"`
	Used         *time.Time   `json:"used,omitempty"`
	Life         storedBelief `json:"life"`
	Pitch        storedBelief `json:"pitch"`
	DullSaid     bool         `json:"dull_said"`
	Complained   bool         `json:"complained"`
	Seen         int          `json:"seen"`
	Asked        bool         `json:"asked"`
	NotBack      bool         `json:"not_back"`
	Looked       bool         `json:"looked"`
	Flaw         string       `json:"flaw"`
	Unfit        *string      `json:"unfit"` // always there: a snapshot without it is none
	Hit          bool         `json:"hit"`
	Away         bool         `json:"away"`
	SaidLeft     bool         `json:"said_left"`
	Left         int          `json:"left"`
	Spent        float64      `json:"spent"`
	Before       struct {
		Life  storedBelief `json:"life"`
		Pitch storedBelief `json:"pitch"`
		Resin float64      `json:"resin_m2"`
	} `json:"before"`
}

func keepTime(t time.Time) *time.Time {
	if t.IsZero() {
		return nil
	}
	t = t.UTC()
	return &t
}

func storedTime(t *time.Time) time.Time {
	if t == nil {
		return time.Time{}
	}
	return t.UTC()
}

func writeCondition(c care.Condition) ([]byte, error) {
	k := storedCondition{
		V: storedVersion, WearM2: c.WearM2, ResinM2: c.ResinM2, ToldM2: c.ToldM2, ToldResinM2: c.ToldResinM2, MetresSharp: c.MetresSharp, MetresWashed: c.MetresWashed, Metres: c.Metres,
		Cuts: c.Cuts, CutsSharp: c.CutsSharp, CutsWashed: c.CutsWashed, Sharpenings: c.Sharpenings, Washes: c.Washes,
		SharpFrom: keepTime(c.SharpFrom), WashFrom: keepTime(c.WashFrom), Used: keepTime(c.Used),
		Life: storedBelief(c.Life), Pitch: storedBelief(c.Pitch),
		DullSaid: c.DullSaid, Complained: c.Complained, Seen: c.Seen, Asked: c.Asked, NotBack: c.NotBack, Looked: c.Looked,
		Flaw: c.Flaw, Unfit: &c.Unfit, Hit: c.Hit, Away: c.Away, SaidLeft: c.SaidLeft, Left: c.Left, Spent: c.Spent,
	}
	k.Before.Life, k.Before.Pitch, k.Before.Resin = storedBelief(c.Before.Life), storedBelief(c.Before.Pitch), c.Before.Resin
	return json.Marshal(k)
}

func readCondition(raw []byte) (care.Condition, error) {
	var k storedCondition
	if err := read(raw, &k, &k.V, storedVersion); err != nil {
		return care.Condition{}, err
	}
	if k.V < 1 || k.Unfit == nil {
		return care.Condition{}, errors.New("this isn't a snapshot")
	}
	if err := errors.Join(figures(k.WearM2, k.ResinM2, max(k.ToldM2, 0), max(k.ToldResinM2, 0), k.MetresSharp, k.MetresWashed, k.Metres, k.Life.Shift, k.Life.Gained, k.Pitch.Shift, k.Pitch.Gained, k.Spent),
		counts(k.Cuts, k.CutsSharp, k.CutsWashed, k.Sharpenings, k.Washes, k.Seen, k.Left)); err != nil {
		return care.Condition{}, err
	}
	return care.Condition{
		WearM2: k.WearM2, ResinM2: k.ResinM2, ToldM2: k.ToldM2, ToldResinM2: k.ToldResinM2, MetresSharp: k.MetresSharp, MetresWashed: k.MetresWashed, Metres: k.Metres,
		Cuts: k.Cuts, CutsSharp: k.CutsSharp, CutsWashed: k.CutsWashed, Sharpenings: k.Sharpenings, Washes: k.Washes,
		SharpFrom: storedTime(k.SharpFrom), WashFrom: storedTime(k.WashFrom), Used: storedTime(k.Used),
		Life: care.Belief(k.Life), Pitch: care.Belief(k.Pitch),
		DullSaid: k.DullSaid, Complained: k.Complained, Seen: k.Seen, Asked: k.Asked, NotBack: k.NotBack, Looked: k.Looked,
		Flaw: k.Flaw, Unfit: *k.Unfit, Hit: k.Hit, Away: k.Away, SaidLeft: k.SaidLeft, Left: k.Left, Spent: k.Spent,
		Before: care.Before{Life: care.Belief(k.Before.Life), Pitch: care.Belief(k.Before.Pitch), Resin: k.Before.Resin},
	}, nil
}

// read reads what was kept and refuses what a later Corte has written.
func read(raw []byte, into any, version *int, most int) error {
	if err := json.Unmarshal(raw, into); err != nil {
		return err
	}
	if *version > most {
		return fmt.Errorf("it was written by a later Corte, as version %d; this one reads up to %d", *version, most)
	}
	return nil
}

// A storedSet is a dado set. The first ones were kept under the names of the
// core's own fields, without a version.
type storedSet struct {
	V      int            `json:"v"`
	Kind   string         `json:"kind"`
	Left   measure.Length `json:"left_mm"`
	Right  measure.Length `json:"right_mm"`
	Parts  []storedPart   `json:"parts"`
	Wings  int            `json:"wings"`
	Ears   measure.Length `json:"ears_mm"`
	Ranges []storedRange  `json:"ranges"`
	Build  string         `json:"build"`
}

type storedPart struct {
	Thickness measure.Length `json:"thickness_mm"`
	Count     int            `json:"count"`
	Shim      bool           `json:"shim"`
}

type storedRange struct {
	Cutters int            `json:"cutters"`
	Least   measure.Length `json:"least_mm"`
	Most    measure.Length `json:"most_mm"`
	Start   measure.Length `json:"start_mm"`
	Turn    measure.Length `json:"turn_mm"`
}

type firstSet struct {
	Kind   string         `json:"Kind"`
	Left   measure.Length `json:"Left"`
	Right  measure.Length `json:"Right"`
	Parts  []firstPart    `json:"Parts"`
	Wings  int            `json:"Wings"`
	Ears   measure.Length `json:"Ears"`
	Ranges []firstRange   `json:"Ranges"`
	Build  string         `json:"Build"`
}

type firstPart struct {
	Thickness measure.Length `json:"Thickness"`
	Count     int            `json:"Count"`
	Shim      bool           `json:"Shim"`
}

type firstRange struct {
	Cutters int            `json:"Cutters"`
	Least   measure.Length `json:"Least"`
	Most    measure.Length `json:"Most"`
	Start   measure.Length `json:"Start"`
	Turn    measure.Length `json:"Turn"`
}

func writeSet(s groove.Set) ([]byte, error) {
	k := storedSet{V: storedVersion, Kind: s.Kind.String(), Left: s.Left, Right: s.Right, Wings: s.Wings, Ears: s.Ears, Build: s.Build.String()}
	for _, p := range s.Parts {
		k.Parts = append(k.Parts, storedPart{p.Thickness, p.Count, p.Shim})
	}
	for _, r := range s.Ranges {
		k.Ranges = append(k.Ranges, storedRange{r.Cutters, r.Least, r.Most, r.Start, r.Turn})
	}
	return json.Marshal(k)
}

func readSet(raw []byte) (groove.Set, error) {
	var k storedSet
	if err := read(raw, &k, &k.V, storedVersion); err != nil {
		return groove.Set{}, err
	}
	if k.V == 0 {
		var f firstSet
		if err := json.Unmarshal(raw, &f); err != nil {
			return groove.Set{}, err
		}
		k = storedSet{Kind: f.Kind, Left: f.Left, Right: f.Right, Wings: f.Wings, Ears: f.Ears, Build: f.Build}
		for _, p := range f.Parts {
			k.Parts = append(k.Parts, storedPart(p))
		}
		for _, r := range f.Ranges {
			k.Ranges = append(k.Ranges, storedRange(r))
		}
	}
	s := groove.Set{Left: k.Left, Right: k.Right, Wings: k.Wings, Ears: k.Ears}
	var err error
	if s.Kind, err = groove.ParseKind(k.Kind); err != nil {
		return s, err
	}
	if s.Build, err = saw.ParseSide(k.Build); err != nil {
		return s, err
	}
	for _, p := range k.Parts {
		s.Parts = append(s.Parts, groove.Part(p))
	}
	for _, r := range k.Ranges {
		s.Ranges = append(s.Ranges, groove.Range(r))
	}
	return s, nil
}

// storedTolerances are what a saw is held to; the first ones went as storedSet's did.
type storedTolerances struct {
	V         int            `json:"v"`
	HeelAim   measure.Length `json:"heel_aim_mm"`
	HeelAct   measure.Length `json:"heel_act_mm"`
	FenceOpen measure.Length `json:"fence_open_mm"`
	RunOutAim measure.Length `json:"runout_aim_mm"`
	RunOutAct measure.Length `json:"runout_act_mm"`
	TiltDeg   float64        `json:"tilt_deg"`
	GaugeDeg  float64        `json:"gauge_deg"`
}

type firstTolerances struct {
	HeelAim   measure.Length `json:"HeelAim"`
	HeelAct   measure.Length `json:"HeelAct"`
	FenceOpen measure.Length `json:"FenceOpen"`
	RunOutAim measure.Length `json:"RunOutAim"`
	RunOutAct measure.Length `json:"RunOutAct"`
	TiltDeg   float64        `json:"TiltDeg"`
	GaugeDeg  float64        `json:"GaugeDeg"`
}

func writeTolerances(t truing.Tolerances) ([]byte, error) {
	return json.Marshal(storedTolerances{storedVersion, t.HeelAim, t.HeelAct, t.FenceOpen, t.RunOutAim, t.RunOutAct, t.TiltDeg, t.GaugeDeg})
}

func readTolerances(raw []byte) (truing.Tolerances, error) {
	var k storedTolerances
	if err := read(raw, &k, &k.V, storedVersion); err != nil {
		return truing.Tolerances{}, err
	}
	if k.V == 0 {
		var f firstTolerances
		err := json.Unmarshal(raw, &f)
		return truing.Tolerances(f), err
	}
	return truing.Tolerances{HeelAim: k.HeelAim, HeelAct: k.HeelAct, FenceOpen: k.FenceOpen, RunOutAim: k.RunOutAim, RunOutAct: k.RunOutAct,
		TiltDeg: k.TiltDeg, GaugeDeg: k.GaugeDeg}, nil
}
