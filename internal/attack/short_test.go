//go:build !long

package attack

// long says whether the tests take their time.
const long = false
