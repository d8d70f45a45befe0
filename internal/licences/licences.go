// Package licences has the licenses of everything that ships with Corte,
// collected by scripts/licences.
package licences

import (
	_ "embed"
	"encoding/json"
	"sync"
)

// A Licence is what one part of Corte is under.
type Licence struct {
	Name    string `json:"name"`
	Version string `json:"version"`
	Licence string `json:"licence"` // its SPDX name
	Text    string `json:"text"`
}

//go:embed shipped.json
var shipped []byte

// All are they, by name.
var All = sync.OnceValues(func() (all []Licence, err error) {
	err = json.Unmarshal(shipped, &all)
	return all, err
})
