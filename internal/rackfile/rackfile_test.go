package rackfile_test

import (
	"fmt"
	"math/rand/v2"
	"reflect"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/getkin/kin-openapi/openapi3"
	"github.com/google/uuid"

	"corte/core/blade"
	"corte/core/groove"
	"corte/core/measure"
	"corte/core/saw"
	"corte/core/say"
	"corte/core/truing"
	"corte/internal/httpapi/contract"
	"corte/internal/rackfile"
	"corte/internal/store"
)

var shop = uuid.MustParse("47d88d7d-f9da-5f7d-8246-f647fe203613")

func reader(t testing.TB) *rackfile.Reader {
	t.Helper()
	spec, err := contract.GetSpec()
	if err != nil {
		t.Fatal(err)
	}
	return rackfile.NewReader(spec, func(e *openapi3.SchemaError, field string) say.Line { return say.Of("%s: %s", field, e.Reason) })
}

// anyBlade is a blade that passes every check, with every field that a file
// can hold set now and then.
func anyBlade(dice *rand.Rand, i int) store.Blade {
	length := func(lo, hi float64) measure.Length {
		// Hundredths, as people measure them, and inch fractions that are none.
		if dice.IntN(4) == 0 {
			return measure.Inches(float64(int(lo/25.4*64)+1+dice.IntN(int((hi-lo)/25.4*64)+1)) / 64)
		}
		return measure.Length(float64(int(100*(lo+dice.Float64()*(hi-lo)))) / 100)
	}
	b := store.Blade{ID: uuid.New(), Version: 1 + dice.IntN(9), Name: fmt.Sprintf("Blade %d, %q; ß\tü", i, "quoted"), Coating: "none",
		Hangs: []string{"", "peg, 3", `"top" drawer`}[dice.IntN(3)], Note: []string{"", "two\nlines; and a semicolon"}[dice.IntN(2)]}
	b.Diameter, b.Bore, b.Kerf = length(150, 305), length(15, 30), length(2.4, 3.6)
	b.Teeth, b.Grind, b.Hook = 12+dice.IntN(40), blade.Grinds()[dice.IntN(7)], float64(dice.IntN(30)-10)
	b.Bevel = float64(5+dice.IntN(30)) + 0.5
	b.KeptFor = blade.Use(dice.IntN(9))
	if dice.IntN(2) == 0 {
		b.Plate, b.Gullet, b.Raker, b.Group = length(1.2, 2.2), length(3, 14), 0.2, 2+dice.IntN(7)
		b.MaxRPM, b.Nails, b.Ferrous, b.Coating, b.Slots = 7000, true, true, "slick", dice.IntN(9)
		b.Price, b.Tip, b.Sharpened = 79.5, length(1, 4), dice.IntN(10)
		b.Shoulder, b.Shear, b.Throwaway = true, dice.IntN(2) == 0, dice.IntN(2) == 0
		b.Blade.Carbide, b.GulletShape = blade.Carbide(dice.IntN(4)), blade.GulletShape(dice.IntN(4))
		if b.HookUnknown = dice.IntN(3) == 0; b.HookUnknown {
			b.Hook = 0
		}
	}
	if dice.IntN(7) == 0 {
		b.Make, b.Set = blade.Dado, &groove.Set{Left: length(3, 4), Right: length(3, 4), Wings: 2 + dice.IntN(3), Ears: 0.1,
			Parts: []groove.Part{{Thickness: 2.4, Count: 2}, {Thickness: 0.1, Count: 4, Shim: true}}}
		if dice.IntN(2) == 0 {
			b.Set = &groove.Set{Kind: groove.Dialled, Build: saw.Right, Ranges: []groove.Range{{Cutters: 2, Least: 6, Most: 12, Start: 6, Turn: 1.2}}}
		}
	} else if dice.IntN(9) == 0 {
		b.Make, b.Teeth, b.Grind, b.Hook, b.Bevel, b.Group, b.Raker, b.Gullet = blade.Diamond, 0, 0, 0, 0, 0, 0, 0
		b.HookUnknown = false
	}
	return b
}

var anySaws = []store.Saw{
	{ID: uuid.New(), Version: 3, Name: "Long Table", Note: "by the door", Saw: saw.Saw{Kind: saw.Table, Diameter: 254, Least: 216, Arbor: 15.875,
		Bushings: []measure.Length{25.4, 30}, RPM: 4000, MotorW: 1300, Volts: 120, BreakerA: 15, Knife: 2.3, DadoSets: true, Reach: 79, Reach45: 57,
		Brake:  &saw.Brake{MinKerf: 2.3, MaxKerf: 4.8, MinDiameter: 250, MaxDiameter: 260},
		Thread: saw.LeftHand, WheelLead: 8, FenceLead: 1.5, ToBolt: 240, ArborLength: 44, Washer: 5, Nut: 12, WasherOff: true, NutSide: saw.Right}, Tolerances: &truing.Usual},
	{ID: uuid.New(), Version: 1, Name: "Drop", Saw: saw.Saw{Kind: saw.Miter, Sliding: true, Diameter: 305, Arbor: 25.4, RPM: 3800, MotorW: 1500,
		Reach: 98, Reach45: 60, Tilt: 48, Turn: 50, BelowTable: 6, ChopWidth: 152, Crosscut: 340, Lock: true}},
	{ID: uuid.New(), Version: 1, Name: "Walker", Saw: saw.Saw{Kind: saw.Circular, Diameter: 184, Arbor: 15.875, RPM: 5200, MotorW: 1200, Reach: 63,
		Wheels: true, Steel: true, Knockout: true}},
}

// Whatever a rack holds, the file that is written of it reads back as the same
// rack, and in a rack that is empty as that many new rows.
func TestAnyRackComesBackTheSame(t *testing.T) {
	r := reader(t)
	dice := rand.New(rand.NewPCG(1, 2))
	blades := make([]store.Blade, 200)
	for i := range blades {
		blades[i] = anyBlade(dice, i)
		if err := blades[i].Check(); err != nil {
			t.Fatalf("the test's own blade is refused: %v", err)
		}
	}
	for _, format := range []contract.FileFormat{contract.FileFormatJSON, contract.FileFormatCsv} {
		raw, err := rackfile.Write(format, anySaws, blades)
		if err != nil {
			t.Fatal(err)
		}
		read := func() []rackfile.Row {
			rows, err := r.Read(format, string(raw))
			if err != nil {
				t.Fatal(err)
			}
			return rows
		}
		p := r.Compare(shop, string(raw), read(), anySaws, blades)
		for _, l := range p.Lines {
			if l.Action != rackfile.Same {
				t.Errorf("%s: %s %s comes back as %s %v %v", format, l.What, l.Name, l.Action, l.Differences, l.Problems)
			}
		}
		elsewhere := r.Compare(shop, string(raw), read(), nil, nil)
		saws, added := elsewhere.Changes()
		if elsewhere.Count(rackfile.Add) != len(p.Lines) || len(added) != len(blades) || format == contract.FileFormatJSON && len(saws) != len(anySaws) {
			t.Fatalf("%s: %d rows to add, %d blades and %d saws", format, elsewhere.Count(rackfile.Add), len(added), len(saws))
		}
		for i, b := range added {
			if b.Blade != blades[i].Blade || b.Name != blades[i].Name || b.Note != blades[i].Note || b.Price != blades[i].Price || b.Version != 0 ||
				format == contract.FileFormatJSON && !reflect.DeepEqual(b.Set, blades[i].Set) {
				t.Errorf("%s: %+v\nwas %+v", format, b, blades[i])
			}
			if b.ID == blades[i].ID {
				t.Errorf("%s took an id that may be another shop's", b.Name)
			}
		}
		// Read a second time it is met, not added again.
		for i := range added {
			added[i].Version = 1
		}
		again := r.Compare(shop, string(raw), read(), saws, added)
		if format == contract.FileFormatCsv && again.Count(rackfile.Same) != len(blades) {
			t.Errorf("%s read twice: %d the same of %d", format, again.Count(rackfile.Same), len(blades))
		}
	}
}

// Rows are met by id, else by name; what is not clear is refused, not guessed.
func TestRowsAreMet(t *testing.T) {
	r := reader(t)
	good := store.Blade{ID: uuid.New(), Version: 1, Name: "Plough", Coating: "none", Blade: blade.Blade{Diameter: 254, Bore: 15.875, Kerf: 3.2, Teeth: 24, Grind: blade.FTG, Hook: 20, KeptFor: blade.UseRip}}
	twin := good
	twin.ID, twin.Name = uuid.New(), "Twin"
	other := twin
	other.ID = uuid.New()
	gone := good
	gone.ID, gone.Name, gone.Retired = uuid.New(), "Gone", &store.Retired{At: time.Now(), Reason: "lost"}
	rack := []store.Blade{good, twin, other, gone}
	full := "name,make,diameter_mm,bore_mm,kerf_mm,teeth,grind,hook_deg,kept_for\n"
	row := func(name string) string { return name + ",toothed,254,15.875,3.2,24,FTG,20,rip\n" }
	for name, tt := range map[string]struct {
		text   string
		action rackfile.Action
		field  string // of the problem or the difference
	}{
		"by name":              {full + row("Plough"), rackfile.Same, ""},
		"a new name":           {full + row("Ploughman"), rackfile.Add, ""},
		"two of that name":     {full + row("Twin"), rackfile.Refuse, "name"},
		"by id":                {"id,teeth\n" + twin.ID.String() + ",30\n", rackfile.Change, "teeth"},
		"a retired one":        {"id,teeth\n" + gone.ID.String() + ",30\n", rackfile.Refuse, "id"},
		"a name of a retired":  {full + row("Gone"), rackfile.Add, ""},
		"not an id":            {"id,teeth\nplough,30\n", rackfile.Refuse, "id"},
		"an id of nobody":      {"id,teeth\n" + uuid.NewString() + ",30\n", rackfile.Refuse, "name"},
		"too many cells":       {"id,teeth\n" + twin.ID.String() + ",30,40\n", rackfile.Refuse, ""},
		"with a mark in front": {"\ufeff" + full + row("Plough"), rackfile.Same, ""},
		"with semicolons":      {strings.ReplaceAll(full+row("Plough"), ",", ";"), rackfile.Same, ""},
		"in inches":            {strings.Replace(full+row("Plough"), "15.875", `5/8"`, 1), rackfile.Same, ""},
		"no number":            {strings.Replace(full+row("Plough"), ",24,", ",many,", 1), rackfile.Refuse, "teeth"},
		"half a tooth":         {strings.Replace(full+row("Plough"), ",24,", ",24.5,", 1), rackfile.Refuse, "teeth"},
		"no kerf":              {strings.Replace(full+row("New"), ",3.2,", ",,", 1), rackfile.Refuse, "kerf_mm"},
		"yes for no number":    {strings.Replace(strings.Replace(full, "kept_for", "kept_for,nails", 1)+row("Plough"), "rip\n", "rip,maybe\n", 1), rackfile.Refuse, "nails"},
	} {
		rows, err := r.Read(contract.FileFormatCsv, tt.text)
		if err != nil {
			t.Errorf("%s: %v", name, err)
			continue
		}
		l := r.Compare(shop, tt.text, rows, nil, rack).Lines[0]
		fields := []string{}
		for _, p := range l.Problems {
			fields = append(fields, p.Field)
		}
		for _, d := range l.Differences {
			fields = append(fields, d.Field)
		}
		if l.Action != tt.action || tt.field != "" && !slices.Contains(fields, tt.field) {
			t.Errorf("%s: %s %+v %+v; want %s of %s", name, l.Action, l.Problems, l.Differences, tt.action, tt.field)
		}
	}
	twice := full + row("New") + row("New")
	rows, _ := r.Read(contract.FileFormatCsv, twice)
	if p := r.Compare(shop, twice, rows, nil, rack); p.Count(rackfile.Add) != 1 || p.Lines[1].Action != rackfile.Refuse || !strings.Contains(p.Lines[1].Problems[0].Detail.String(), "Call this one New 2") {
		t.Errorf("two new blades of one name: %+v", p.Lines[1].Problems)
	}
	same := "id,teeth\n" + twin.ID.String() + ",30\n" + twin.ID.String() + ",32\n"
	rows, _ = r.Read(contract.FileFormatCsv, same)
	if p := r.Compare(shop, same, rows, nil, rack); p.Lines[1].Action != rackfile.Refuse || !strings.Contains(p.Lines[1].Problems[0].Detail.String(), "Row 1") {
		t.Errorf("one blade twice: %+v", p.Lines[1])
	}
	one, two := r.Compare(shop, same, rows, nil, rack).Digest, r.Compare(shop, same, rows, nil, rack[1:]).Digest
	if one == two {
		t.Error("the digest does not see that the rack has changed")
	}
}

// No file, however broken, brings the reader down, and every row that it takes
// is a blade that could be.
func FuzzRead(f *testing.F) {
	r := reader(f)
	raw, _ := rackfile.Write(contract.FileFormatJSON, anySaws, nil)
	f.Add(string(raw), true)
	f.Add("name,teeth\nPlough,24\n", false)
	f.Add(`{"format":"corte-rack","version":1,"blades":[{"name":1},null,[],{"brake":{}}]}`, true)
	f.Fuzz(func(t *testing.T, text string, asJSON bool) {
		format := contract.FileFormatCsv
		if asJSON {
			format = contract.FileFormatJSON
		}
		rows, err := r.Read(format, text)
		if err != nil {
			return
		}
		for _, l := range r.Compare(shop, text, rows, nil, nil).Lines {
			if l.Action == rackfile.Add && l.What == rackfile.Blade && l.Blade.Check() != nil {
				t.Errorf("took %+v", l.Blade)
			}
		}
	})
}
