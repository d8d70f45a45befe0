package pgtest

import (
	"context"
	"encoding/json"
	"maps"
	"os"
	"slices"
	"strings"
	"sync"

	"github.com/jackc/pgx/v5"
)

// said is what the tests' stores said to the database, for `make statements`: a
// later Corte's migrations have to leave all of it working.
var said statements

type statements struct {
	mu  sync.Mutex
	all map[string]bool
}

func (s *statements) TraceQueryStart(ctx context.Context, _ *pgx.Conn, q pgx.TraceQueryStartData) context.Context {
	for _, verb := range []string{"SELECT", "INSERT", "UPDATE", "DELETE", "WITH"} {
		if text := strings.TrimSpace(q.SQL); strings.HasPrefix(text, verb) {
			s.mu.Lock()
			if s.all == nil {
				s.all = map[string]bool{}
			}
			s.all[strings.Join(strings.Fields(text), " ")] = true
			s.mu.Unlock()
		}
	}
	return ctx
}

func (*statements) TraceQueryEnd(context.Context, *pgx.Conn, pgx.TraceQueryEndData) {}

// keep writes the statements to the file that CORTE_STATEMENTS names, where it does.
func (s *statements) keep() error {
	name := os.Getenv("CORTE_STATEMENTS")
	if name == "" {
		return nil
	}
	text, err := json.MarshalIndent(slices.Sorted(maps.Keys(s.all)), "", "\t")
	if err != nil {
		return err
	}
	return os.WriteFile(name, append(text, '\n'), 0o644)
}
