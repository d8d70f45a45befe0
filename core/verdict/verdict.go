// Package verdict holds the three words in which Corte judges anything (design
// principle 4): clear, mind, stop.
package verdict

// A Verdict is one of three words. The zero Verdict is Clear.
type Verdict uint8

const (
	Clear Verdict = iota
	Mind
	Stop
)

var names = [...]string{"clear", "mind", "stop"}

func (v Verdict) String() string { return names[v] }
