// Package word has helpers for sentences and for the names of enumerations.
package word

import (
	"unicode"
	"unicode/utf8"
)

// Upper is a sentence with its first letter large, whatever letter that is.
func Upper(s string) string {
	first, size := utf8.DecodeRuneInString(s)
	if size == 0 || first == utf8.RuneError {
		return s
	}
	return string(unicode.ToUpper(first)) + s[size:]
}
