// Package ptr converts between values and the contract's optional fields.
package ptr

// To points at a value.
func To[T any](v T) *T { return &v }

// Value is what is pointed at, or zero where nothing is.
func Value[T any](p *T) (v T) {
	if p != nil {
		v = *p
	}
	return v
}

// NonZero leaves out what is zero: not known, or not there.
func NonZero[T comparable](v T) *T {
	var zero T
	if v == zero {
		return nil
	}
	return &v
}

// Positive leaves out a number that stands for not known or not there.
func Positive[T ~float64](v T) *T {
	if v <= 0 {
		return nil
	}
	return &v
}

// Or is what is pointed at, or v where nothing is.
func Or[T any](p *T, v T) T {
	if p != nil {
		v = *p
	}
	return v
}

// Unless leaves out what is zero, or what is meant where nothing is said.
func Unless[T comparable](v, usual T) *T {
	if v == usual {
		return nil
	}
	return NonZero(v)
}
