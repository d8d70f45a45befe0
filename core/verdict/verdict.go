// Package verdict holds the three words in which Corte judges anything (design
// principle 4): clear, mind, stop.
package verdict

import "corte/core/word"

// A Verdict is one of three words. The zero Verdict is Clear.
type Verdict uint8

const (
	Clear Verdict = iota
	Mind
	Stop
)

var names = word.Names{Kind: "verdict", Of: []string{"clear", "mind", "stop"}}

func (v Verdict) String() string { return word.Name(names, v) }

// MarshalText writes it as it stands in records.
func (v Verdict) MarshalText() ([]byte, error) { return word.Text(names, v) }

// UnmarshalText is the inverse of MarshalText.
func (v *Verdict) UnmarshalText(text []byte) (err error) {
	*v, err = word.Value[Verdict](names, string(text))
	return err
}
