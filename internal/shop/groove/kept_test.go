package groove

import (
	"encoding/json"
	"testing"

	"corte/internal/testkit/golden"
)

// What the first edition kept of a groove is read field by field, and kept
// again as it was.
func TestAnAskIsReadAsItWasOnceKept(t *testing.T) {
	var k keptAsk
	golden.Kept(t, "testdata/asked.json", &k)
	ask := k.ask()
	golden.Full(t, &ask)
	c := scene{ask: ask}
	c.piece.Thickest, c.want.Width, c.want.Depth = k.Piece, k.Target, k.Depth
	raw, err := c.keep()
	was, _ := json.Marshal(k)
	if err != nil || string(raw) != string(was) {
		t.Errorf("%v; kept again as %s", err, raw)
	}
}
