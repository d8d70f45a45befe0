// Package verdict has the three verdicts that Corte gives: clear, caution and
// stop.
package verdict

import "corte/core/word"

// A Verdict is one of three words. The zero Verdict is Clear.
type Verdict uint8

const (
	Clear Verdict = iota
	Caution
	Stop
)

//corte:enum Verdict unread
var names = word.Names{Kind: "verdict", Of: []string{"clear", "caution", "stop"}}

// was is the word that stood for caution in the first edition's records, and
// still does in worked cases.
const was = "mind"

// UnmarshalText is the inverse of MarshalText; it reads the first edition's
// words as well.
func (v *Verdict) UnmarshalText(text []byte) (err error) {
	if string(text) == was {
		*v = Caution
		return nil
	}
	*v, err = word.Value[Verdict](names, string(text))
	return err
}
