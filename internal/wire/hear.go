package wire

import (
	"encoding/binary"
	"math"

	"corte/core/sound"
	"corte/internal/httpapi/contract"
	"corte/internal/ptr"
	"corte/internal/record"
)

// likely is by what share of its said speed a saw may idle otherwise.
const likely = 0.08

// Ear is what is known of a saw and the blade that is on it before anybody listens. An
// idle speed far from the said one was heard of another blade's teeth, and is left out:
// with it nothing else would ever be heard.
func Ear(w record.Saw, b record.Blade) sound.Saw {
	s := sound.Saw{Teeth: b.Teeth, RPM: w.RPM, Full: w.Kind.FullDroop()}
	if w.HeardRPM > 0 && math.Abs(w.HeardRPM/w.RPM-1) <= likely {
		s.Idle = w.HeardRPM
	}
	return s
}

// Samples are what a block of sound holds: whole numbers of two bytes, the lower one
// first. An odd byte at the end is left out.
func Samples(block []byte) []float64 {
	out := make([]float64, len(block)/2)
	for i := range out {
		out[i] = float64(int16(binary.LittleEndian.Uint16(block[2*i:]))) / (1 << 15)
	}
	return out
}

// heardSigns are the signs of Trace that a sound shows.
var heardSigns = map[string]string{sound.Whistle: "whistle", sound.Beat: "vibration"}

// Hear is what is heard of a saw, at seconds from when somebody began to listen; and
// how many times as much as was foretold its cuts slowed it before, where that is known.
func (v Voice) Hear(h sound.Heard, s sound.Saw, at, strays float64) contract.HeardSaw {
	out := contract.HeardSaw{
		AtS: cent(at), Doing: h.Doing, Rpm: ptr.Positive(math.Round(h.RPM)), IdleRpm: ptr.Positive(math.Round(h.IdleRPM)),
		Stalls: []float64{}, Signs: []string{}, Says: []string{},
	}
	out.Cuts = make([]contract.CutByEar, len(h.Cuts))
	var seconds, mean float64
	least := math.Inf(1)
	for i, c := range h.Cuts {
		to := &out.Cuts[i]
		to.StartS, to.EndS, to.LeastRpm, to.MeanRpm = cent(c.Start), cent(c.End), math.Round(c.LeastRPM), math.Round(c.MeanRPM)
		to.DroopPercent = math.Round(1000*(1-c.LeastRPM/h.IdleRPM)) / 10
		seconds += c.End - c.Start
		mean += c.MeanRPM * (c.End - c.Start)
		least = min(least, c.LeastRPM)
	}
	for _, at := range h.Stalls {
		out.Stalls = append(out.Stalls, cent(at))
	}
	for _, sign := range h.Signs {
		out.Signs = append(out.Signs, heardSigns[sign])
	}
	if n := len(h.Cuts); n > 0 {
		mean /= seconds
		// The idle speed is of the last minutes, and may lie under an older cut's.
		idle := math.Round(h.IdleRPM)
		mean = min(math.Round(mean), idle)
		least = min(math.Round(least), mean)
		out.Fill = &contract.FilledIn{
			Pieces: n, Seconds: math.Round(10*seconds/float64(n)) / 10, Effort: contract.Effort(s.Effort(1 - mean/idle)),
			Heard: contract.HeardCut{IdleRpm: idle, MeanRpm: mean, LeastRpm: least},
		}
	}
	for _, line := range h.Says(strays) {
		out.Says = append(out.Says, v.Sentence(line))
	}
	return out
}

func cent(x float64) float64 { return math.Round(100*x) / 100 }
