package special

import (
	"math"

	"corte/core/measure"
	"corte/core/saw"
	"corte/core/say"
	"corte/core/verdict"
)

func (a Ask) plunge(p *Plan) {
	r := a.Blade.Radius()
	if a.Height < a.Thickness {
		p.length(say.Of("Cut on the face under the shoe"), chord(r, a.Height))
	} else {
		top, bottom := chord(r, a.Height), chord(r, a.Height-a.Thickness)
		p.length(say.Of("Shortest cut on the face under the shoe"), top)
		p.length(say.Of("The same on the far face"), bottom)
		over := (top - bottom) / 2
		p.length(say.Of("Overcut at each corner"), over)
		if a.Length < top {
			p.stop(say.Of("Use a smaller blade, drill the corners and finish with a jigsaw, or make the opening longer."),
				"The blade’s own cut is %s long on this face, longer than the %s that are wanted: it would overcut the corners.", say.Set(top), say.Set(a.Length))
			return
		}
		p.step("Stop at each corner mark and finish the far face with a hand saw. Or, if the far face must be cut right into the corner, mark %s past it and overcut to there.", say.Set(over))
	}
	p.step("Clamp the work on both sides of the line, nothing below it but air. Clamp a straightedge for the shoe, and a block behind the shoe so that the saw can’t climb back.")
	p.step("Set the depth to %s. Rest the shoe’s front edge on the work, hold the lower guard back by its lever, the blade clear of the work.", say.Set(a.Height))
	p.step("Switch on, let it reach full speed, lower it slowly until the shoe lies flat, let the guard go, and cut forward only.")
	p.step("Stop at the mark, switch off, and wait until the blade stops before you lift it. Finish the corners with a hand saw.")
	if a.Saw.Knife > 0 {
		p.never("Not with a riving knife that is fixed behind the blade: it can’t enter the work. Use a saw made for plunge cuts.")
	}
	p.never("Never backward: the saw climbs out toward you.")
	p.never("Never lower it onto a knot or a nail.")
}

func (a Ask) taper(p *Plan) {
	taken := a.Width - a.Narrow
	deg := degrees(math.Atan(float64(taken / a.Length)))
	p.angle(say.Of("Taper angle"), deg)
	known := a.Known
	if known == 0 {
		known = a.Length
	}
	p.length(say.Of("Offset of the jig at that length"), known*taken/a.Length)
	p.length(say.Of("Wedge taken off at the narrow end"), taken)
	if deg > 15 {
		p.stop(say.Of("Cut it with a band saw, or with a hand-held saw along a straightedge, and plane it."), "A taper of %.1f° is too steep for a jig along the fence.", deg)
		return
	}
	p.step("On the jig, set the offset: %s over %s. The wide end leads, so that the cut runs out of the work at its narrow end.", say.Set(known*taken/a.Length), say.Set(known))
	p.step("Hold the work on the jig with two toggle clamps, away from the line. The jig’s straight edge runs along the fence.")
	p.step("Fence so that the blade meets the mark at the narrow end. Cut a test piece from scrap first, and measure both ends.")
	p.step("Push the jig past the blade with a push block. The wedge falls free on the far side.")
	p.never("Never with the wedge between the blade and the fence: it is pinched and thrown.")
	p.never("Never freehand.")
}

// coveBite is the most that one pass over a blade at an angle takes, and
// coveLast what is left for the last (craft section 19).
const (
	coveBite = measure.Length(1.5)
	coveLast = measure.Length(0.3)
)

func (a Ask) cove(p *Plan) {
	r := a.Blade.Radius()
	widest := chord(r, a.Depth)
	if a.Width > widest {
		p.stop(say.Of("Use a larger blade, or make it deeper or narrower."), "A cove of %s at %s deep is wider than this blade makes, %s.", say.Set(a.Width), say.Set(a.Depth), say.Set(widest))
		return
	}
	p.angle(say.Of("Fence to the blade’s plane"), degrees(math.Asin(float64(a.Width/widest))))
	p.length(say.Of("Widest cove at this depth"), widest)
	var heights []measure.Length
	rest := a.Depth - coveLast
	n := int(math.Ceil(float64(rest/coveBite) - 1e-9))
	for i := range n {
		heights = append(heights, rest*measure.Length(i+1)/measure.Length(n))
	}
	for i, h := range append(heights, a.Depth) {
		says := say.Of("pass %d", i+1)
		if h == a.Depth {
			says = say.Of("the last, light pass")
		}
		p.Passes = append(p.Passes, Pass{h, says})
	}
	p.step("Raise the blade to %s and lay two parallel strips, %s apart, so that they just touch it front and rear: that is the angle.", say.Set(a.Depth), say.Set(a.Width))
	p.step("Clamp a straight fence at that angle on each side of the work, so that it can’t wander. Use a blade with 40 to 60 teeth.")
	p.step("Lower the blade to the first pass. Push slowly with two push blocks, and take %d passes.", len(p.Passes))
	if a.Saw.Knife > 0 {
		p.step("The riving knife and guard can’t stand over this cut: take them off as the manual says, and put them back afterward.")
	} else {
		p.step("The guard can’t stand over this cut: take it off as the manual says, and put it back afterward.")
	}
	p.never("Never more than %s in one pass: the blade is pushed sideways.", say.Thin(coveBite))
	p.never("Never hands over the blade: the cove hides it.")
}

// compound are the two angles of a compound miter on a saw.
func (a Ask) compound(p *Plan, miter, tilt float64) {
	if most := a.Saw.MostMiter(); miter > most {
		p.stop(say.Of("Cut it on edge against a tall fence, or on another saw."), "This cut needs a miter of %.1f°, and this saw turns to %g°.", miter, most)
		return
	}
	if most := a.Saw.MostBevel(); tilt > most {
		p.stop(say.Of("Cut it standing in a jig, or on another saw."), "This cut needs a tilt of %.1f°, and this saw tilts to %g°.", tilt, most)
		return
	}
	p.angle(say.Of("Miter"), miter)
	p.angle(say.Of("Blade tilt"), tilt)
	p.step("Cut two scraps first and hold them together: a tenth of a degree shows in the joint.")
	p.step("Left and right pieces mirror each other: mark each one, and which face is up, before you cut.")
	if a.Saw.Kind == saw.Miter {
		p.step("Clamp the piece flat on the table and tight to the fence. Hold the blade down until it has stopped.")
	} else {
		p.step("Hold it on the miter gauge with a clamp, the rip fence drawn well back.")
	}
	p.never("Never hold a short piece by hand: cut it from a longer one.")
}

func (a Ask) hopper(p *Plan) {
	s, n := radians(a.SlopeDeg), math.Pi/float64(a.Sides)
	a.compound(p, degrees(math.Atan(math.Cos(s)*math.Tan(n))), degrees(math.Asin(math.Sin(s)*math.Sin(n))))
}

func (a Ask) crown(p *Plan) {
	s, k := radians(a.SpringDeg), radians(a.CornerDeg/2)
	a.compound(p, degrees(math.Atan(math.Sin(s)/math.Tan(k))), degrees(math.Asin(math.Cos(s)*math.Cos(k))))
	if p.Verdict != verdict.Stop {
		p.step("The molding lies flat, its face up: the edge that goes to the ceiling against the fence for one side of the corner, the edge that goes to the wall for the other.")
	}
}

// Resawing: a pass takes no more than the motor gives at a slow rip, and the two
// that meet leave a web where the halves would let go.
const (
	resawFeed = measure.Feed(1.5)
	resawWeb  = measure.Length(3)
	resawUse  = 0.72 // of the power limit; judgement
	mostDeep  = measure.Length(40)
)

func (a Ask) resaw(p *Plan) {
	reach := a.Saw.ReachWith(a.Blade, 0)
	half := (a.Width - resawWeb) / 2
	if a.Width > 2*reach+resawWeb {
		p.stop(say.Of("Cut it with a band saw, or rip it narrower first."), "This saw reaches %s from each edge, and the board is %s wide.", say.Set(reach), say.Set(a.Width))
		return
	}
	if a.Length < 300 {
		p.stop(say.Of("Resaw a longer board, and cut it to length afterward."), "A board of %s is too short to run on edge along a fence.", say.Set(a.Length))
		return
	}
	if a.Thickness < 3*a.Blade.Kerf {
		p.stop(say.Of("Plane it to thickness instead."), "A board of %s leaves too little on either side of a kerf of %s.", say.Set(a.Thickness), say.Thin(a.Blade.Kerf))
		return
	}
	// The deepest pass that the motor makes at a slow feed, found by halving.
	lo, hi := measure.Length(2), min(half, mostDeep)
	if limit := resawUse * a.Saw.PowerLimitW(); a.powerIn(hi, resawFeed) > limit {
		for range 30 {
			mid := (lo + hi) / 2
			if a.powerIn(mid, resawFeed) > limit {
				hi = mid
			} else {
				lo = mid
			}
		}
		hi = lo
	}
	p.Depth, p.Power = hi, resawFeed
	n := max(1, int(math.Ceil(float64(half/hi)-1e-9)))
	for i := range n {
		p.Passes = append(p.Passes, Pass{half * measure.Length(i+1) / measure.Length(n), say.Of("both edges, height %d of %d", i+1, n)})
	}
	p.PowerW = a.powerIn(half/measure.Length(n), resawFeed)
	p.length(say.Of("From each edge"), half)
	p.length(say.Of("Web left in the middle"), resawWeb)
	p.length(say.Of("Each leaf, before planing"), (a.Thickness-a.Blade.Kerf)/2)
	p.step("Joint one face and both edges. The same face against a tall fence for every pass.")
	p.step("Featherboard on the table before the blade only, never beside it: there it closes the kerf.")
	p.step("Cut both edges at the first height, then both at the next. Slowly, %.0f s for every 300 mm.", resawFeed.SecondsPer300mm())
	p.step("Stop with a web of %s in the middle, and part the leaves with a hand saw.", say.Set(resawWeb))
	if a.Saw.Knife > 0 {
		p.step("Keep the riving knife on, set below the top of the blade: the kerf closes where the board is under tension.")
	} else {
		p.step("Keep a wedge at hand for the kerf: it closes where the board is under tension.")
	}
	p.never("Never through in one pass, and never with the leaf free between blade and fence.")
}

func (a Ask) stopped(p *Plan) {
	r := a.Blade.Radius()
	if a.Height >= a.Thickness {
		p.stop(say.Of("Set the blade lower than the stock, or use a plunge cut by hand or a router."), "A stopped cut that goes through hides the whole blade under the work.")
		return
	}
	reach := chord(r, a.Height) / 2
	p.length(say.Of("Blade meets the work this far before and behind its center"), reach)
	p.length(say.Of("Full depth ends this far from the stop mark"), reach)
	p.step("Mark on the fence where the blade enters and leaves the table: %s before its center and %s behind it.", say.Set(reach), say.Set(reach))
	p.step("Mark the work where the groove must end, and clamp a stop block to the fence where the two marks meet.")
	if a.Ends {
		p.step("Clamp a stop block at each end: one to start against, one to stop at.")
		p.step("With the saw off, clamp the work over the lowered blade, against the first block. Switch on and raise the blade into it, then unclamp, push to the second block and switch off.")
	}
	p.step("At the block, hold the work still, switch off, and wait until the blade has stopped before you lift the work.")
	p.step("Square the rounded end with a chisel: it is %s long.", say.Set(reach))
	p.never("Never lower work onto a turning blade: it is thrown back at you. A router or a plunge cut is safer.")
}

func (a Ask) round(p *Plan) {
	d := a.Thickness
	if a.Saw.Kind == saw.Table && d+3 > a.Saw.ReachWith(a.Blade, 0) || a.Saw.Kind == saw.Miter && d > a.Saw.ReachWith(a.Blade, 0) {
		p.stop(say.Of("Cut it by hand, or with a band saw and a V block."), "Stock of %s is thicker than this saw cuts through.", say.Set(d))
		return
	}
	v := d / measure.Length(2*math.Sin(radians(45)))
	p.length(say.Of("Depth of a 90° V that holds it by its middle"), v)
	p.step("Cut a 90° V along a block, at least %s deep and longer than your hand is wide.", say.Set(v))
	p.step("Lay the stock in the V and clamp it there, or screw a strap over it: it must not turn.")
	if a.Saw.Kind == saw.Miter {
		p.step("Clamp the block to the table and fence. Let the blade reach full speed, cut slowly, and hold it down until it has stopped.")
	} else {
		p.step("Clamp the block to the crosscut sled. The rip fence stands well back.")
	}
	p.never("Never freehand, and never along the grain: the blade rolls it and throws it.")
}
