package sight

import (
	"flag"
	"math"
	"math/rand/v2"
	"strings"
	"testing"
)

var walls = flag.Int("walls", pick(8, 4), "that are made up; docs/sight.md says of how many its table is")

func TestWalls(t *testing.T) {
	var brown, black, spacings, none, crossings, upright tally
	for i := *first; i < *first+*walls; i++ {
		r := rand.New(rand.NewPCG(18, uint64(i)))
		b := drawnBoard(r, 20)
		p := b.picture(r)
		w, err := p.LookAtWall(b.thick, nil)
		wantBrown, wantBlack := b.shares()
		shown := math.Min(1, 1/b.fill) // of the wall, if it goes past the picture
		if shown < 1 {
			wantBrown, wantBlack = math.NaN(), math.NaN() // not all of it is seen: corners are checked by the spacing alone
		}
		fine := err == nil
		if !math.IsNaN(wantBrown) {
			fine = brown.add(err == nil && math.Abs(w.Brown+w.Black-wantBrown-wantBlack) < 0.05) && fine
			fine = black.add(err == nil && math.Abs(w.Black-wantBlack) < 0.05) && fine
		}
		if b.spacing > 0 {
			fine = spacings.add(err == nil && math.Abs(w.Spacing/b.spacing-1) < 0.05) && fine
			if b.crossing {
				fine = crossings.add(w.Crossing) && fine
			} else {
				fine = upright.add(!w.Crossing) && fine
			}
		} else {
			fine = none.add(err == nil && w.Spacing == 0) && fine
		}
		if !fine {
			t.Logf("%d: brown %.2f black %.2f, want %.2f %.2f; spacing %.2f (sure %.2f), want %.2f of %.0f px; crossing %v, want %v; fill %.2f, tilt %.0f %.0f, corners %.0f; %v", i, w.Brown, w.Black, wantBrown, wantBlack, w.Spacing, w.SpacingSure, b.spacing, b.spacing*b.fill*2400/b.long, w.Crossing, b.crossing, b.fill, b.tilt[0], b.tilt[1], w.Corners, err)
			kept(t, "wall.png", p)
		}
	}
	t.Logf("scorched %d of %d, black %d of %d, spacing %d of %d, none %d of %d, crossing %d of %d, not crossing %d of %d",
		brown.right, brown.of, black.right, black.of, spacings.right, spacings.of, none.right, none.of, crossings.right, crossings.of, upright.right, upright.of)
	if brown.share() < 0.75 || spacings.share() < 0.75 {
		t.Error("it sees too little")
	}
}

func TestWallsThatCannotBeRead(t *testing.T) {
	r := rand.New(rand.NewPCG(1, 1))
	p := drawnBoard(r, 0).picture(r)
	plain := Picture{400, 300, make([]uint8, 4*400*300)}
	for want, err := range map[string]error{
		"no cut edge found":      second(plain.LookAtWall(20, nil)),
		"thickness of the piece": second(p.LookAtWall(0, nil)),
		"Mark four":              second(p.LookAtWall(20, []Point{{0, 0}, {1, 1}})),
		"clockwise":              second(p.LookAtWall(20, []Point{{0, 0}, {0, 1}, {1, 1}, {1, 0}})),
		"Take it closer":         second(p.LookAtWall(20, []Point{{0, 0.5}, {1, 0.5}, {1, 0.51}, {0, 0.51}})),
		"too small":              second(Picture{100, 100, make([]uint8, 40000)}.LookAtWall(20, nil)),
	} {
		if err == nil || !strings.Contains(err.Error(), want) {
			t.Errorf("%v, want %q", err, want)
		}
	}
}

func second(_ Wall, err error) error { return err }
