package refusal

import (
	"errors"
	"fmt"
	"strings"

	"corte/core/fault"
)

// fields are the contract's names of the places that the core finds fault with,
// where they are not the same; %d stands for which of several.
var fields = map[string]string{
	"saw":             "saw_id",
	"arbor":           "arbor_mm",
	"arbor length":    "arbor_length_mm",
	"below table":     "below_table_mm",
	"bend":            "bend_deg",
	"bevel":           "bevel_deg",
	"blade":           "blade_id",
	"bore":            "bore_mm",
	"brake, diameter": "brake.min_diameter_mm",
	"brake, kerf":     "brake.min_kerf_mm",
	"breadth":         "breadth_mm",
	"bushings":        "bushings_mm",
	"chop width":      "chop_width_mm",
	"circuit":         "breaker_a",
	"crosscut":        "crosscut_mm",
	"depth":           "depth_mm",
	"diameter":        "diameter_mm",
	"ears":            "ears_mm",
	"edge":            "edge_mm",
	"exit support":    "exit_support",
	"fence lead":      "fence_lead_mm",
	"fence reach":     "fence_reach_mm",
	"shoe":            "shoe_mm",
	"carriage travel": "carriage_mm",
	"narrow end":      "narrow_mm",
	"known length":    "known_mm",
	"spring":          "spring_deg",
	"corner":          "corner_deg",
	"special cut":     "kind",
	"scoring blade":   "scoring_kerf_mm",
	"board":           "board_mm",
	"first reading":   "first_mm",
	"greatest speed":  "max_rpm",
	"gullet":          "gullet_mm",
	"height":          "height_mm",
	"hook":            "hook_deg",
	"kerf":            "kerf_mm",
	"least blade":     "least_mm",
	"left":            "left_mm",
	"length":          "length_mm",
	"line":            "line_mm",
	"measured size":   "measured_mm",
	"miter":           "miter_deg",
	"motor":           "motor_w",
	"nut":             "nut_mm",
	"offset":          "offset_mm",
	"other support":   "other_support",
	"part, count":     "parts.%d.count",
	"part, thickness": "parts.%d.thickness_mm",
	"oversize":        "oversize_mm",
	"piece":           "piece_mm",
	"piece, count":    "pieces.%d.count",
	"piece, length":   "pieces.%d.length_mm",
	"places":          "places_mm",
	"plate":           "plate_mm",
	"radius":          "radius_mm",
	"raker":           "raker_mm",
	"range, cutters":  "ranges.%d.cutters",
	"range, most":     "ranges.%d.most_mm",
	"range, start":    "ranges.%d.start_mm",
	"range, turn":     "ranges.%d.turn_mm",
	"reach":           "reach_mm",
	"reach at 45°":    "reach45_mm",
	"right":           "right_mm",
	"riving knife":    "knife_mm",
	"room":            "room_mm",
	"second reading":  "second_mm",
	"skin":            "skin_mm",
	"slope":           "slope_deg",
	"slot":            "slot_mm",
	"span":            "span_mm",
	"speed":           "rpm",
	"stick, count":    "sticks.%d.count",
	"stick, length":   "sticks.%d.length_mm",
	"stock":           "stock_mm",
	"tenon":           "tenon_mm",
	"thickness":       "thickness_mm",
	"tilt":            "tilt_deg",
	"trim":            "trim_mm",
	"turntable":       "turn_deg",
	"wanted size":     "wanted_mm",
	"washer":          "washer_mm",
	"way off":         "off_mm",
	"way to the bolt": "to_bolt_mm",
	"wheel lead":      "wheel_lead_mm",
	"width":           "width_mm",
}

// Placed puts what the core finds fault with into the contract's terms, below
// a name of its own such as "cut"; other errors stay as they are.
func Placed(err error, under ...string) error {
	var f *fault.Error
	if !errors.As(err, &f) {
		return err
	}
	name, other := fields[f.Where]
	if !other {
		name = f.Where
	}
	if strings.Contains(name, "%d") {
		name = fmt.Sprintf(name, f.Nth)
	}
	return &Error{Reason: Invalid, Field: strings.Join(append(under, name), "."), What: f.What}
}
