package choose

import (
	"errors"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"

	"corte/core/blade"
	"corte/core/choose"
	"corte/core/cut"
	"corte/core/measure"
	"corte/core/saw"
	"corte/internal/record"
	"corte/internal/refusal"
)

var (
	tableID, ripID, fineID = uuid.UUID{1}, uuid.UUID{2}, uuid.UUID{3}
	measured               = time.Date(2026, 5, 4, 9, 0, 0, 0, time.UTC)
)

// shelf is a saw and two blades, of which one was measured.
func shelf() record.Shelf {
	return record.Shelf{
		Saws: []record.Saw{{ID: tableID, Name: "Long Table", Zone: "Europe/Vienna", ChangeMinutes: 3, Rework: 1, Mounted: &ripID,
			Saw: saw.Saw{Kind: saw.Table, Diameter: 254, Arbor: 15.875, RPM: 4000, MotorW: 1300, Reach: 79, Knife: 2.5}}},
		Blades: []record.Blade{
			{ID: ripID, Name: "Plough", Blade: blade.Blade{Diameter: 254, Bore: 15.875, Kerf: 3.2, Plate: 2.2, Teeth: 24, Grind: blade.FTG, Hook: 20, MaxRPM: 7000, KeptFor: blade.UseRip}},
			{ID: fineID, Name: "Needle", Blade: blade.Blade{Diameter: 254, Bore: 15.875, Kerf: 3.2, Plate: 2.2, Teeth: 80, Grind: blade.HighATB, Bevel: 30, Hook: 5, MaxRPM: 7000, KeptFor: blade.UseSheet}},
		},
		Swayed: map[uuid.UUID]map[uuid.UUID]record.Wobble{tableID: {ripID: {Spread: 0.08, SpreadAt: measured}}},
	}
}

func cherry(f cut.Finish) record.Cut {
	return record.Cut{SawID: tableID, Cut: cut.Cut{Part: cut.Part{Material: "cherry", Direction: cut.Rip, Finish: f, Thickness: 25, Width: 120, Length: 900}}}
}

// A sweep goes as far as the saw reaches with the blade, and says what is past
// it.
func TestASweepEndsWhereTheSawDoes(t *testing.T) {
	s := At(shelf())
	full := s.full(t)
	for also, refused := range map[measure.Length]bool{full: false, full + 0.01: true} {
		sweep, err := s.Sweep(t.Context(), uuid.Nil, cherry(cut.Hidden), SweepSpec{Blade: ripID, Step: 10, Also: also})
		var e *refusal.Error
		if errors.As(err, &e) != refused || refused && e.Field != "also_mm" || !refused && (sweep.Also == nil || sweep.Also.Height != also || len(sweep.Schools) != 3) {
			t.Errorf("%v: %v", also, err)
		}
	}
}

func (s Station) full(t *testing.T) measure.Length {
	_, _, r, err := s.Request(t.Context(), uuid.Nil, cherry(cut.Hidden))
	if err != nil {
		t.Fatal(err)
	}
	return r.Heights(shelf().Blades[0].Blade).Full
}

// Marks on a wall are told, with where their figures are from, where the finish
// looks for them and the material has a window.
func TestMarksAreToldWhereTheyAreLookedFor(t *testing.T) {
	for _, tt := range []struct {
		cut  record.Cut
		want string
	}{
		{cherry(cut.Fine), "side clearance 0.08 mm, measured on 4 May 2026; usual run-out, never measured here"},
		{cherry(cut.Rough), ""},
	} {
		p, err := At(shelf()).Plan(t.Context(), uuid.Nil, tt.cut, 5)
		if err != nil {
			t.Fatal(err)
		}
		for _, o := range p.Options {
			if got := o.Setting.WallFrom.String(); o.Blade == ripID && got != tt.want || o.Blade == fineID && strings.Contains(got, "0.08") {
				t.Errorf("%v, blade %v: %q", tt.cut.Finish, o.Blade, got)
			}
		}
	}
}

// The blade that is on costs no change, and the one to change to is named.
func TestTheBladeThatIsOnIsKnown(t *testing.T) {
	p, err := At(shelf()).Plan(t.Context(), uuid.Nil, cherry(cut.Hidden), 5)
	if err != nil || len(p.Options) == 0 || p.Options[0].Blade != ripID || !p.Options[0].Mounted || p.Swap == nil || *p.Swap.On != ripID || !strings.HasPrefix(p.Swap.Text.String(), "Plough is on the saw") {
		t.Fatalf("%+v, %v", p.Options, err)
	}
	bare := shelf()
	bare.Saws[0].Mounted = nil
	if p, err = At(bare).Plan(t.Context(), uuid.Nil, cherry(cut.Hidden), 5); err != nil || p.Options[0].Mounted || p.Swap != nil {
		t.Errorf("nothing is on: %+v, %v", p.Swap, err)
	}
}

// Blades that one rule stops for one reason stand together.
func TestStopsAreGathered(t *testing.T) {
	s := shelf()
	for i := range s.Blades {
		s.Blades[i].Bore = 30
	}
	s.Blades[1].Condition.Away = true
	p, err := At(s).Plan(t.Context(), uuid.Nil, cherry(cut.Hidden), 5)
	if err != nil || p.Total != 0 || len(p.Stopped) != 2 {
		t.Fatalf("%+v, %v", p.Stopped, err)
	}
	s.Blades[1].Condition.Away = false
	if p, err = At(s).Plan(t.Context(), uuid.Nil, cherry(cut.Hidden), 5); err != nil || len(p.Stopped) != 1 || p.Stopped[0].Rule != choose.RuleBore || len(p.Stopped[0].Blades) != 2 {
		t.Errorf("alike: %+v, %v", p.Stopped, err)
	}
}
