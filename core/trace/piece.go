package trace

import "slices"

// Piece says what to do with the piece that the fault is on: leave, sand,
// scrape, plane or cut again, by fault and by what the face must be good for
// (craft sections 1, 8 and 11).
func Piece(signs []string, finish string) []string {
	seen := func(ids ...string) bool {
		return slices.ContainsFunc(ids, func(id string) bool { return slices.Contains(signs, id) })
	}
	seenBy := finish == "show" || finish == "fine"
	out := []string{}
	add := func(yes bool, say string) {
		if yes {
			out = append(out, say)
		}
	}
	scorched := seen("scorch-both-walls", "scorch-fence-wall", "scorch-offcut-wall", "scorch-one-spot", "scorch-end-of-cut")
	add(scorched && !seenBy, "The scorched face: leave it where it is glued up or out of sight; glue holds on a wiped brown wall, not on char.")
	add(scorched && seenBy, "The scorched face: a card scraper or a light pass over the jointer takes it off; sanding polishes the burn before it removes it.")
	add(seen("marks-once-per-turn", "marks-rear-arcs", "marks-waves", "walls-fuzzy") && seenBy, "The marked wall: plane or scrape it; leave half a millimetre for that on the next piece.")
	add(seen("splinter-exit-face", "splinter-both-faces") && seenBy, "The splintered face: turn it inward, or cut it again with the line scored; glue down what still hangs.")
	add(seen("splinter-exit-face", "splinter-both-faces") && !seenBy, "The splintered face: leave it, or a chamfer hides it.")
	add(seen("splinter-end-edge"), "The broken end: leave the piece long, and trim that end last.")
	add(seen("end-not-square", "end-not-plumb", "cut-crooked"), "The crooked end: recut it once the saw is right; no sanding makes it square.")
	add(seen("piece-short"), "The short piece: it serves where a shorter one is wanted; make the rest from fresh stock.")
	add(seen("pieces-vary"), "The uneven pieces: cut all of them again together to the shortest, against a clean stop.")
	add(seen("groove-ridge", "groove-ears", "groove-steps"), "The groove's bottom: a router plane or chisel levels it.")
	add(seen("groove-width-off"), "The groove: a wide one takes a strip of veneer, a narrow one a second pass.")
	return out
}
