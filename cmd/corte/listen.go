package main

import (
	"bytes"
	"encoding/binary"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"math"
	"os"

	"github.com/go-audio/wav"
	"github.com/spf13/cobra"

	"corte/core/sound"
)

// mostHeard is the longest sound that is read, in samples of all its channels.
const mostHeard = 48000 * 3600

const mostFile = 4*mostHeard + 1<<20 // bytes

func listenCommand() *cobra.Command {
	var saw sound.Saw
	cmd := &cobra.Command{
		Use:   "listen SOUND.wav",
		Short: "Analyze a recording of a saw",
		Long: "Listens to a recording of a saw and prints as JSON how fast it idled, its cuts, and where it stalled.\n" +
			"The number of teeth of the blade that is on has to be said; docs/sound.md has what it can hear and what it cannot.",
		Args: cobra.ExactArgs(1),
		RunE: func(cmd *cobra.Command, args []string) error {
			samples, rate, err := readSound(args[0])
			if err != nil {
				return fmt.Errorf("%s: %w", args[0], err)
			}
			h, err := sound.Listen(samples, rate, saw)
			if err != nil {
				return err
			}
			out := json.NewEncoder(cmd.OutOrStdout())
			out.SetIndent("", "  ")
			return out.Encode(heardOf(h))
		},
	}
	cmd.Flags().IntVar(&saw.Teeth, "teeth", 0, "of the blade that is on")
	cmd.Flags().Float64Var(&saw.RPM, "rpm", 0, "that the saw is said to turn at, if it is known")
	cobra.CheckErr(cmd.MarkFlagRequired("teeth"))
	return cmd
}

// heard is what is printed.
type heard struct {
	IdleRPM float64    `json:"idle_rpm"`
	Cuts    []heardCut `json:"cuts"`
	Stalls  []float64  `json:"stalls"`
	Signs   []string   `json:"signs"`
}

type heardCut struct {
	Start float64 `json:"start_s"`
	End   float64 `json:"end_s"`
	Least float64 `json:"least_rpm"`
	Mean  float64 `json:"mean_rpm"`
}

func heardOf(h sound.Heard) heard {
	tenth := func(x float64) float64 { return math.Round(10*x) / 10 }
	cent := func(x float64) float64 { return math.Round(100*x) / 100 }
	out := heard{IdleRPM: tenth(h.IdleRPM), Cuts: []heardCut{}, Stalls: []float64{}, Signs: append([]string{}, h.Signs...)}
	for _, c := range h.Cuts {
		out.Cuts = append(out.Cuts, heardCut{cent(c.Start), cent(c.End), tenth(c.LeastRPM), tenth(c.MeanRPM)})
	}
	for _, s := range h.Stalls {
		out.Stalls = append(out.Stalls, cent(s))
	}
	return out
}

var (
	errNoWAV   = errors.New("this isn't a WAV file with PCM samples. Save it as 16-bit WAV")
	errTooLong = errors.New("this is longer than an hour. Split it")
)

// rightSizes writes into a WAV how much sound there is. A program that writes one
// as it records may leave the sizes at 0 or at their greatest, and a file may have
// been cut off: what is there is heard.
func rightSizes(raw []byte) error {
	const head, chunk = 12, 8 // bytes before the first chunk, and before what is in each
	if len(raw) < head || string(raw[:4]) != "RIFF" || string(raw[8:head]) != "WAVE" {
		return errNoWAV
	}
	binary.LittleEndian.PutUint32(raw[4:], uint32(len(raw)-chunk))
	for at := head; at+chunk <= len(raw); {
		size, there := int(binary.LittleEndian.Uint32(raw[at+4:])), len(raw)-at-chunk
		sound := string(raw[at:at+4]) == "data"
		if size > there || sound && size == 0 {
			if size = there; !sound {
				return errors.New("this WAV file ends before its sound begins. Record it again")
			}
			binary.LittleEndian.PutUint32(raw[at+4:], uint32(size))
		}
		if sound {
			if size == 0 {
				break
			}
			return nil
		}
		at += chunk + size + size%2
	}
	return errors.New("this WAV file has no sound. Record it again")
}

// readSound reads a WAV of whole numbers, its channels as one.
func readSound(name string) (samples []float64, rate float64, err error) {
	f, err := os.Open(name)
	if err != nil {
		return nil, 0, err
	}
	defer f.Close()
	raw, err := io.ReadAll(io.LimitReader(f, mostFile+1))
	if err != nil {
		return nil, 0, err
	}
	if len(raw) > mostFile {
		return nil, 0, errTooLong
	}
	if err := rightSizes(raw); err != nil {
		return nil, 0, err
	}
	d := wav.NewDecoder(bytes.NewReader(raw))
	d.ReadInfo()
	if !d.IsValidFile() || d.WavAudioFormat != 1 || d.NumChans == 0 || d.BitDepth < 8 || d.BitDepth > 32 {
		return nil, 0, errNoWAV
	}
	if d.PCMLen()/int64(d.BitDepth/8) > mostHeard {
		return nil, 0, errTooLong
	}
	buf, err := d.FullPCMBuffer()
	if err != nil {
		return nil, 0, fmt.Errorf("it cannot be read to its end: %w", err)
	}
	channels, full := int(d.NumChans), math.Exp2(float64(d.BitDepth-1))
	samples = make([]float64, len(buf.Data)/channels)
	for i := range samples {
		for k := range channels {
			v := float64(buf.Data[i*channels+k])
			if d.BitDepth == 8 { // eight bits have no sign
				v -= 128
			}
			samples[i] += v / full / float64(channels)
		}
	}
	return samples, float64(d.SampleRate), nil
}
