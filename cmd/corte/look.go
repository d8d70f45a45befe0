package main

import (
	"encoding/json"
	"errors"
	"fmt"
	"math"
	"os"

	"github.com/spf13/cobra"

	"corte/core/sight"
	"corte/internal/photo"
)

const (
	mostLooked  = 40 << 20 // bytes of a photo
	leastSaid   = 50.0     // mm of a diameter
	mostSaid    = 800.0
	leastBoreMM = 5.0
	mostBoreMM  = 120.0
)

func lookCommand() *cobra.Command {
	var diameter, bore float64
	cmd := &cobra.Command{
		Use:   "look PHOTO",
		Short: "Measure a blade from a photo",
		Long: "Looks at a photo (JPEG, PNG or WebP) of a blade that lies flat, all of it in the picture, and prints as JSON its teeth,\n" +
			"hook, groups, teeth that are missing, and bore against diameter; with one of those two said, its sizes in mm.\n" +
			"docs/sight.md has what it can see and what it cannot.",
		Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			switch {
			case diameter != 0 && bore != 0:
				return errors.New("give the diameter or the bore, not both")
			case diameter != 0 && !(diameter >= leastSaid && diameter <= mostSaid):
				return fmt.Errorf("a diameter of %g mm is no saw blade's; from %g to %g are", diameter, leastSaid, mostSaid)
			case bore != 0 && !(bore >= leastBoreMM && bore <= mostBoreMM):
				return fmt.Errorf("a bore of %g mm is no saw blade's; from %g to %g are", bore, leastBoreMM, mostBoreMM)
			}
			info, err := os.Stat(args[0])
			if err != nil {
				return err
			}
			if info.Size() > mostLooked {
				return fmt.Errorf("%s: a photo of more than %d MB is not looked at; send a smaller one", args[0], mostLooked>>20)
			}
			file, err := os.ReadFile(args[0])
			if err != nil {
				return err
			}
			img, err := photo.Upright(cmd.Context(), file, sight.EnoughSide)
			if err != nil {
				return fmt.Errorf("%s: %w", args[0], err)
			}
			b, err := sight.Picture{Wide: img.Rect.Dx(), High: img.Rect.Dy(), Pix: img.Pix}.Look(nil)
			if err != nil {
				return fmt.Errorf("%s: %w", args[0], err)
			}
			out := json.NewEncoder(cmd.OutOrStdout())
			out.SetIndent("", "  ")
			return out.Encode(seenOf(b, diameter, bore))
		},
	}
	cmd.Flags().Float64Var(&diameter, "diameter", 0, "in mm, if it is known")
	cmd.Flags().Float64Var(&bore, "bore", 0, "in mm, if that is known instead")
	return cmd
}

// seen is what is printed. Missing, short and bent teeth are told by degrees from the top
// of the picture on, clockwise.
type seen struct {
	Teeth     int       `json:"teeth"`
	TeethSure float64   `json:"teeth_sure"`
	Hook      float64   `json:"hook_deg"`
	HookSure  float64   `json:"hook_sure"`
	Group     int       `json:"group"`
	Missing   []float64 `json:"missing"`
	Short     []float64 `json:"short"`
	Bent      []float64 `json:"bent"`
	Slots     int       `json:"slots"`
	BoreRatio float64   `json:"bore_ratio"`
	Diameter  float64   `json:"diameter_mm,omitempty"`
	Bore      float64   `json:"bore_mm,omitempty"`
	Gullet    float64   `json:"gullet_mm,omitempty"`
}

func seenOf(b sight.Blade, diameter, bore float64) seen {
	cent := func(x float64) float64 { return math.Round(100*x) / 100 }
	tenth := func(x float64) float64 { return math.Round(10*x) / 10 }
	degrees := func(all []sight.Place) []float64 {
		out := []float64{}
		for _, p := range all {
			out = append(out, tenth(p.Degrees))
		}
		return out
	}
	out := seen{Teeth: b.Teeth, TeethSure: cent(b.TeethSure), Hook: tenth(b.Hook), HookSure: cent(b.HookSure), Group: b.Group, Missing: degrees(b.Missing), Short: degrees(b.Short), Bent: degrees(b.Bent), Slots: b.Slots, BoreRatio: math.Round(1e4*b.BoreRatio) / 1e4}
	if bore != 0 && b.BoreRatio > 0 {
		diameter = bore / b.BoreRatio
	}
	if diameter != 0 {
		out.Diameter, out.Bore, out.Gullet = tenth(diameter), cent(diameter*b.BoreRatio), tenth(b.Gullet*diameter/2)
	}
	return out
}
