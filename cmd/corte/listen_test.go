package main

import (
	"bytes"
	"encoding/binary"
	"encoding/json"
	"math"
	"os"
	"path/filepath"
	"strings"
	"testing"

	"github.com/go-audio/audio"
	"github.com/go-audio/wav"
	"github.com/spf13/cobra"
)

// sawSound writes ten seconds of a saw of 40 teeth at 4,000 a minute, which droops
// by a twentieth from the fourth second to the sixth.
func sawSound(t *testing.T, bits, channels int) string {
	t.Helper()
	const rate = 44100
	f, err := os.Create(filepath.Join(t.TempDir(), "saw.wav"))
	if err != nil {
		t.Fatal(err)
	}
	full := math.Exp2(float64(bits - 1))
	buf := &audio.IntBuffer{Format: &audio.Format{SampleRate: rate, NumChannels: channels}, SourceBitDepth: bits}
	teeth := 0.0
	for i := range 10 * rate {
		rpm := 4000.0
		if at := float64(i) / rate; at > 4 && at < 6 {
			rpm = 3800
		}
		teeth += rpm / 60 * 40 / rate
		v := 0.4*math.Sin(2*math.Pi*teeth) + 0.2*math.Sin(4*math.Pi*teeth) + 0.1*math.Sin(6*math.Pi*teeth)
		for range channels {
			n := int(v * (full - 1))
			if bits == 8 {
				n += 128
			}
			buf.Data = append(buf.Data, n)
		}
	}
	e := wav.NewEncoder(f, rate, bits, channels, 1)
	if err := e.Write(buf); err != nil {
		t.Fatal(err)
	}
	if err := e.Close(); err != nil {
		t.Fatal(err)
	}
	if err := f.Close(); err != nil {
		t.Fatal(err)
	}
	return f.Name()
}

func TestListenPrintsWhatItHeard(t *testing.T) {
	for _, c := range []struct{ bits, channels int }{{16, 1}, {16, 2}, {8, 1}, {24, 2}} {
		out, err := ran(listenCommand(), sawSound(t, c.bits, c.channels), "--teeth", "40", "--rpm", "4000")
		var got heard
		if err != nil || json.Unmarshal([]byte(out), &got) != nil {
			t.Fatalf("%+v: %v\n%s", c, err, out)
		}
		if math.Abs(got.IdleRPM/4000-1) > 0.005 || len(got.Cuts) != 1 || len(got.Stalls)+len(got.Signs) > 0 {
			t.Fatalf("%+v: %s", c, out)
		}
		if cut := got.Cuts[0]; math.Abs(cut.Start-4) > 0.15 || math.Abs(cut.End-6) > 0.15 || math.Abs(cut.Least/3800-1) > 0.005 {
			t.Errorf("%+v: %s", c, out)
		}
	}
}

func TestListenSaysWhatItCannot(t *testing.T) {
	text := filepath.Join(t.TempDir(), "saw.wav")
	if err := os.WriteFile(text, []byte("RIFF not at all"), 0o600); err != nil {
		t.Fatal(err)
	}
	for want, args := range map[string][]string{
		"isn't a WAV file":    {text, "--teeth", "40"},
		"no such file":        {text + "x", "--teeth", "40"},
		"teeth":               {sawSound(t, 16, 1)},
		"the number of teeth": {sawSound(t, 16, 1), "--teeth", "4"},
		"500 to 20,000 rpm":   {sawSound(t, 16, 1), "--teeth", "40", "--rpm", "9"},
	} {
		if out, err := ran(listenCommand(), args...); err == nil || !strings.Contains(err.Error(), want) {
			t.Errorf("%v: %v\n%s", args[1:], err, out)
		}
	}
}

// What a recorder left wrong of the sizes, or what was cut off, is no reason not
// to hear the rest; where no sound is there, that is said.
func TestListenReadsWhatIsThere(t *testing.T) {
	whole, err := os.ReadFile(sawSound(t, 16, 1))
	if err != nil {
		t.Fatal(err)
	}
	data := bytes.Index(whole, []byte("data"))
	sized := func(riff, sound uint32) []byte {
		b := bytes.Clone(whole)
		binary.LittleEndian.PutUint32(b[4:], riff)
		binary.LittleEndian.PutUint32(b[data+4:], sound)
		return b
	}
	for name, c := range map[string]struct {
		file []byte
		want string // of the error; empty where one cut is heard
	}{
		"as a pipe leaves it": {sized(0, 0), ""},
		"as large as can be":  {sized(math.MaxUint32, math.MaxUint32), ""},
		"cut off":             {whole[:data+8+9*2*44100+1], ""},
		"no sound":            {whole[:data+8], "no sound"},
		"no data":             {whole[:data], "no sound"},
		"cut in its head":     {whole[:data-8], "ends before its sound"},
	} {
		file := filepath.Join(t.TempDir(), "saw.wav")
		if err := os.WriteFile(file, c.file, 0o600); err != nil {
			t.Fatal(err)
		}
		out, err := ran(listenCommand(), file, "--teeth", "40", "--rpm", "4000")
		var got heard
		switch {
		case c.want != "":
			if err == nil || !strings.Contains(err.Error(), c.want) {
				t.Errorf("%s: %v\n%s", name, err, out)
			}
		case err != nil || json.Unmarshal([]byte(out), &got) != nil || len(got.Cuts) != 1:
			t.Errorf("%s: %v\n%s", name, err, out)
		}
	}
}

// ran is what a command prints.
func ran(c *cobra.Command, args ...string) (string, error) {
	var out bytes.Buffer
	c.SetOut(&out)
	c.SilenceErrors, c.SilenceUsage = true, true
	c.SetArgs(args)
	err := c.Execute()
	return out.String(), err
}
