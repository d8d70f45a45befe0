package trace

// worded is a cause in words that fit this saw: its remedy names no riving knife
// where there is none, and no insert under a saw held by hand.
func (e Evidence) worded(c Cause) Cause {
	switch {
	case c.ID == "stock-closing" && e.Saw == "miter":
		c.Remedy = "Support both sides so that the kerf stays open; let stressed wood go for short pieces."
	case c.ID == "stock-closing" && !e.knife():
		c.Remedy = "A wedge in the kerf behind the blade; let stressed wood go for short pieces."
	case c.ID == "stock-tension" && e.Saw == "miter":
		c.Remedy = "Support both sides; cut it long, let it move, and cut it again."
	}
	return c
}

// named is a check in words that fit this saw.
func (e Evidence) named(k Check) Check {
	switch {
	case k.ID == "knife-and-wedge" && e.Saw == "miter":
		k.Label, k.How = "Both sides supported, kerf open", "Support both sides so that the kerf stays open, and lift the blade out if it pinches, before the rest of the cut."
	case k.ID == "knife-and-wedge" && !e.knife():
		k.Label, k.How = "A wedge in the kerf", "A wedge in the kerf behind the blade, before the rest of the cut."
	case k.ID == "raise-blade" && e.Saw == "circular":
		k.Label, k.How = "Same cut, blade deeper", "The same cut with the gullets clear of the work below."
	case k.ID == "lower-blade" && e.Saw == "circular":
		k.Label, k.How = "Same cut, blade shallower", "The same cut, 3 mm through."
	}
	return k
}
