package trace

// worded is a cause in words that fit this saw: its remedy names no riving knife
// where there is none, and no insert under a saw held by hand.
func (e Evidence) worded(c Cause) Cause {
	switch {
	case c.ID == "stock-closing" && e.Saw == "miter":
		c.Remedy = "Support both sides so the kerf stays open. Cut stressed wood into short pieces."
	case c.ID == "stock-closing" && !e.knife():
		c.Remedy = "Put a wedge in the kerf behind the blade. Cut stressed wood into short pieces."
	case c.ID == "stock-tension" && e.Saw == "miter":
		c.Remedy = "Support both sides. Cut it long, let it rest, and cut it again."
	}
	return c
}

// named is a check in words that fit this saw.
func (e Evidence) named(k Check) Check {
	switch {
	case k.ID == "knife-and-wedge" && e.Saw == "miter":
		k.Label, k.How = "Both sides supported, kerf open", "Before the rest of the cut, support both sides so the kerf stays open. Lift the blade out if it pinches."
	case k.ID == "knife-and-wedge" && !e.knife():
		k.Label, k.How = "A wedge in the kerf", "Before the rest of the cut, put a wedge in the kerf behind the blade."
	case k.ID == "raise-blade" && e.Saw == "circular":
		k.Label, k.How = "Same cut, blade deeper", "Make the same cut with the gullets clear of the stock below."
	case k.ID == "lower-blade" && e.Saw == "circular":
		k.Label, k.How = "Same cut, blade shallower", "Make the same cut with the blade 3 mm past the stock."
	}
	return k
}
