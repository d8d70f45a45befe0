package main

import (
	"context"
	"fmt"
	"os"
	"strings"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"corte/internal/demo"
	"corte/internal/record"
	"corte/internal/shop"
	"corte/internal/store"
)

const (
	seasons = 19 // of the demo shop, laid one after another over five years
	apart   = 96 // days from one to the next
	atOnce  = 25 // shops that are copied in one statement
)

// stretch repeats the demo season further and further back. What strikes rows
// out or stands in place of them is not repeated, nor what was struck out.
const stretch = `INSERT INTO log (shop_id, at, kind, blade_id, saw_id, by_name, note, detail)
SELECT l.shop_id, l.at - k * make_interval(days => $2), l.kind, l.blade_id, l.saw_id, l.by_name, l.note, l.detail
FROM generate_series(1, $3 - 1) k, log l
WHERE l.shop_id = $1 AND l.strikes IS NULL AND l.amends IS NULL AND NOT EXISTS (SELECT FROM log x WHERE x.shop_id = l.shop_id AND x.strikes = l.id)
ORDER BY k DESC, l.at, l.id`

// fill makes shops in a database, each with five years of log, and tokens of as
// many of them as there are clients. Shops that are there already count.
func fill(ctx context.Context, url string, shops, clients int) (tokens []string, err error) {
	st, err := store.Open(ctx, url)
	if err != nil {
		return nil, err
	}
	defer st.Close()
	if err := st.Migrate(ctx); err != nil {
		return nil, err
	}
	conn, err := pgx.Connect(ctx, url)
	if err != nil {
		return nil, err
	}
	defer conn.Close(context.WithoutCancel(ctx)) //nolint:errcheck // nothing hangs on it
	var there int
	if err := conn.QueryRow(ctx, `SELECT count(*) FROM shops`).Scan(&there); err != nil {
		return nil, err
	}
	first, err := demo.Furnish(ctx, st, time.Now())
	if err != nil {
		return nil, err
	}
	if there == 0 {
		if _, err := conn.Exec(ctx, stretch, first.ID, apart, seasons); err != nil {
			return nil, err
		}
		// Folding asks for rows by the thousand, and must not take them for few.
		if _, err := conn.Exec(ctx, `ANALYZE`); err != nil {
			return nil, err
		}
		if _, _, err := st.Conditions(ctx, true); err != nil {
			return nil, err
		}
		lessons, err := st.Lessons(ctx, first.ID, "")
		if err != nil {
			return nil, err
		}
		for _, l := range lessons {
			if err := st.Learn(ctx, first.ID, l.Material); err != nil {
				return nil, err
			}
		}
		there = 1
	}
	all, err := st.Tables(ctx)
	if err != nil {
		return nil, err
	}
	for ; there < shops; there += atOnce {
		if err := copies(ctx, conn, all, first.ID, there, min(there+atOnce, shops)); err != nil {
			return nil, err
		}
		fmt.Fprintf(os.Stderr, "\r%d shops", min(there+atOnce, shops))
	}
	if _, err := conn.Exec(ctx, `ANALYZE`); err != nil {
		return nil, err
	}
	ids, _ := conn.Query(ctx, `SELECT id FROM shops ORDER BY hashtext(slug) LIMIT $1`, clients)
	some, err := pgx.CollectRows(ids, pgx.RowTo[uuid.UUID])
	if err != nil {
		return nil, err
	}
	svc := shop.New(st, time.Now)
	for i := range clients {
		token, _, err := svc.People.AddToken(ctx, some[i%len(some)], fmt.Sprint("client ", i), record.Worker, 30)
		if err != nil {
			return nil, err
		}
		tokens = append(tokens, token)
	}
	return tokens, nil
}

// copies founds the shops from one number to another as the first one is.
func copies(ctx context.Context, conn *pgx.Conn, tables []store.Table, first uuid.UUID, from, to int) error {
	tx, err := conn.Begin(ctx)
	if err != nil {
		return err
	}
	defer tx.Rollback(context.WithoutCancel(ctx)) //nolint:errcheck // after a commit there is nothing to roll back
	steps := []string{
		`SET LOCAL session_replication_role = replica`, // what is copied points where it did
		fmt.Sprintf(`CREATE TEMP TABLE new ON COMMIT DROP AS SELECT gen_random_uuid() AS id, 'scale-' || n AS slug FROM generate_series(%d, %d) n`, from+1, to),
		fmt.Sprintf(`INSERT INTO shops (id, slug, name, change_minutes, height_school, learning, sharpening_price, rework, time_zone, sign_off, pins)
			SELECT n.id, n.slug, n.slug, change_minutes, height_school, learning, sharpening_price, rework, time_zone, sign_off, pins FROM shops s, new n WHERE s.id = '%s'`, first),
	}
	for _, t := range tables {
		if t.Name == "idempotency" {
			continue
		}
		columns := ", t." + strings.Join(t.Columns, ", t.")
		if t.Name == "owning" {
			columns = strings.ReplaceAll(columns, ", t.shop_id", "")
		}
		steps = append(steps, fmt.Sprintf(`INSERT INTO %s (shop_id%s) OVERRIDING SYSTEM VALUE SELECT n.id%s FROM new n, %s t WHERE t.shop_id = '%s' ORDER BY n.id, t.%s`,
			t.Name, strings.ReplaceAll(columns, "t.", ""), columns, t.Name, first, t.Key))
	}
	for _, sql := range steps {
		if _, err := tx.Exec(ctx, sql); err != nil {
			return fmt.Errorf("%.80s: %w", sql, err)
		}
	}
	return tx.Commit(ctx)
}
