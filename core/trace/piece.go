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
	add(scorched && !seenBy, "Burned edge: leave it if it is glued or out of sight. Glue holds on a wiped brown edge, not on black char.")
	add(scorched && seenBy, "Burned edge: remove it with a card scraper or a light pass over the jointer. Sanding polishes the burn before it removes it.")
	add(seen("marks-once-per-turn", "marks-rear-arcs", "marks-waves", "walls-fuzzy") && seenBy, "Marked edge: plane or scrape it. Leave half a millimeter for that on the next piece.")
	add(seen("splinter-exit-face", "splinter-both-faces") && seenBy, "Face with tear-out: turn it inward, or cut it again with the line scored. Glue down what is loose.")
	add(seen("splinter-exit-face", "splinter-both-faces") && !seenBy, "Face with tear-out: leave it, or hide it with a chamfer.")
	add(seen("splinter-end-edge"), "Broken end: leave the piece long and trim that end last.")
	add(seen("end-not-square", "end-not-plumb", "cut-crooked"), "Crooked end: recut it once the saw is set right. Sanding won't make it square.")
	add(seen("piece-short"), "Short piece: use it where a shorter one fits. Cut the rest from fresh stock.")
	add(seen("pieces-vary"), "Uneven pieces: recut all of them together to the shortest, against a clean stop.")
	add(seen("groove-ridge", "groove-ears", "groove-steps"), "Groove bottom: level it with a router plane or chisel.")
	add(seen("groove-width-off"), "Groove: glue a strip of veneer into a wide one. Cut a narrow one with a second pass.")
	return out
}
