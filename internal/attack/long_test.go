//go:build long

package attack

const long = true
