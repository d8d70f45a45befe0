package word

import (
	"fmt"
	"strings"
)

// Names are the words of a kind of value that is one of a few, in the order of
// its constants. An empty name is a value that nobody can say.
type Names struct {
	Kind string // such as "grind"
	Of   []string
}

// An UnknownError is returned for a word that is none of a kind's.
type UnknownError struct {
	Kind, Said string
	Known      []string
}

func (e *UnknownError) Error() string {
	last := len(e.Known) - 1
	return fmt.Sprintf("unknown %s %q; use %s or %s", e.Kind, e.Said, strings.Join(e.Known[:last], ", "), e.Known[last])
}

// Name is the word of a value. A value that is none of the kind's is written as
// kind(9), so that it can be seen where it stands.
func Name[T ~uint8](n Names, v T) string {
	if int(v) < len(n.Of) {
		return n.Of[v]
	}
	return fmt.Sprintf("%s(%d)", n.Kind, v)
}

// Value is the inverse of Name. The error is an UnknownError.
func Value[T ~uint8](n Names, said string) (T, error) {
	var known []string
	for i, name := range n.Of {
		switch name {
		case "":
		case said:
			return T(i), nil
		default:
			known = append(known, name)
		}
	}
	return 0, &UnknownError{n.Kind, said, known}
}

// Text is Name for records, which take no value that cannot be read again.
func Text[T ~uint8](n Names, v T) ([]byte, error) {
	if int(v) < len(n.Of) {
		return []byte(n.Of[v]), nil
	}
	return nil, fmt.Errorf("there is no %s", Name(n, v))
}
