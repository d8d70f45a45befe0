package main

import (
	"context"
	"errors"
	"fmt"
	"io"
	"maps"
	"net/url"
	"os"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/spf13/cobra"

	"corte/core/say"
	"corte/internal/shopfile"
	"corte/internal/store"
)

func backupCommand() *cobra.Command {
	return &cobra.Command{
		Use: "backup FILE", Short: "Write a backup of the whole shop", Args: oneFile,
		RunE: beside(func(cmd *cobra.Command, args []string, s settings, st *store.Store) error {
			ctx := cmd.Context()
			sh, err := st.ShopNamed(ctx, s.Shop)
			if errors.Is(err, store.ErrNone) {
				return fmt.Errorf("this database has no shop %q. Set CORTE_SHOP to another", s.Shop)
			} else if err != nil {
				return err
			}
			f, err := shopfile.Save(ctx, st, sh.ID, time.Now(), madeBy(), args[0], telling(cmd.ErrOrStderr()))
			if err != nil {
				return err
			}
			_, err = fmt.Fprintf(cmd.OutOrStdout(), "%s: %d rows, read back and whole.\n", args[0], f.Rows())
			return err
		}),
	}
}

func restoreCommand() *cobra.Command {
	var check, damaged bool
	cmd := &cobra.Command{
		Use: "restore FILE", Short: "Restore a backup into an empty shop", Args: oneFile,
		RunE: beside(func(cmd *cobra.Command, args []string, s settings, st *store.Store) error {
			ctx := cmd.Context()
			f, shut, err := openFile(ctx, cmd.OutOrStdout(), st, args[0], damaged)
			if err != nil {
				return err
			}
			defer shut()
			if check {
				return nil
			}
			sh, _, err := st.EnsureShop(ctx, store.Shop{ID: uuid.New(), Slug: s.Shop, Name: "Our shop", ChangeMinutes: 3})
			if err != nil {
				return err
			}
			if err := f.Restore(ctx, st, sh.ID, telling(cmd.ErrOrStderr())); err != nil {
				return err
			}
			_, err = fmt.Fprintf(cmd.OutOrStdout(), "Restored: %d rows.\n", f.Rows())
			return err
		}),
	}
	cmd.Flags().BoolVar(&check, "check", false, "only show what the file contains and what can't be read")
	cmd.Flags().BoolVar(&damaged, "keep-damaged", false, "restore damaged records too, to repair them later")
	return cmd
}

// A drill is the only proof that a copy is one: it is brought back in full.
func drillCommand() *cobra.Command {
	return &cobra.Command{
		Use: "drill FILE", Short: "Restore a backup into a scratch database and compare", Args: oneFile,
		RunE: beside(func(cmd *cobra.Command, args []string, _ settings, st *store.Store) (err error) {
			ctx, out := cmd.Context(), cmd.OutOrStdout()
			f, shut, err := openFile(ctx, out, st, args[0], true)
			if err != nil {
				return err
			}
			defer shut()
			scratch, drop, err := scratchDatabase(ctx, st.URL())
			if err != nil {
				return err
			}
			defer func() { err = errors.Join(err, drop()) }()
			differs, err := drill(ctx, f, scratch)
			if err != nil {
				return err
			}
			if len(differs) > 0 {
				return fmt.Errorf("the restored data differs from the file: %v", differs)
			}
			_, err = fmt.Fprintf(out, "Restored into a scratch database and compared: %d rows, all the same.\n", f.Rows())
			return err
		}),
	}
}

// drill brings a file into a database of its own, writes it out again, and says
// which entries differ.
func drill(ctx context.Context, f *shopfile.File, url string) (differs []string, err error) {
	st, err := store.Open(ctx, url)
	if err != nil {
		return nil, err
	}
	defer st.Close()
	if err := st.Migrate(ctx); err != nil {
		return nil, err
	}
	sh, _, err := st.EnsureShop(ctx, store.Shop{ID: uuid.New(), Slug: "drill", Name: "Drill", ChangeMinutes: 3})
	if err != nil {
		return nil, err
	}
	if err := f.Restore(ctx, st, sh.ID, nil); err != nil {
		return nil, err
	}
	again, err := os.CreateTemp("", "corte-drill-")
	if err != nil {
		return nil, err
	}
	defer again.Close()
	if err := os.Remove(again.Name()); err != nil { // while it is open: a drill that is killed leaves nothing
		return nil, err
	}
	if err := shopfile.Write(ctx, st, sh.ID, f.MadeAt, f.MadeBy, again, nil); err != nil {
		return nil, err
	}
	at, err := again.Stat()
	if err != nil {
		return nil, err
	}
	g, err := shopfile.Open(again, at.Size())
	if err != nil {
		return nil, err
	}
	return f.Differs(g), nil
}

// scratchName begins the name of every scratch database; the second it was made
// in follows.
const scratchName = "corte_drill_"

// sweepScratch drops the scratch databases of drills that were killed: those that
// are an hour old and that nobody is connected to.
func sweepScratch(ctx context.Context, st *store.Store) error {
	conn, err := pgx.Connect(ctx, st.URL())
	if err != nil {
		return err
	}
	defer conn.Close(context.WithoutCancel(ctx)) //nolint:errcheck // nothing hangs on it
	rows, err := conn.Query(ctx, `SELECT datname::text FROM pg_database d WHERE starts_with(datname, $1) AND NOT EXISTS (SELECT FROM pg_stat_activity a WHERE a.datid = d.oid)`, scratchName)
	if err != nil {
		return err
	}
	names, err := pgx.CollectRows(rows, pgx.RowTo[string])
	for _, name := range names {
		var made int64
		if _, unread := fmt.Sscanf(strings.TrimPrefix(name, scratchName), "%d_", &made); unread == nil && time.Since(time.Unix(made, 0)) < time.Hour {
			continue
		}
		_, drop := conn.Exec(ctx, "DROP DATABASE IF EXISTS "+pgx.Identifier{name}.Sanitize())
		err = errors.Join(err, drop)
	}
	return err
}

// scratchDatabase makes one beside the database at a URL.
func scratchDatabase(ctx context.Context, at string) (string, func() error, error) {
	u, err := url.Parse(at)
	if err != nil {
		return "", nil, err
	}
	name := fmt.Sprintf("%s%d_%s", scratchName, time.Now().Unix(), uuid.NewString()[:8])
	run := func(sql string) error {
		conn, err := pgx.Connect(context.WithoutCancel(ctx), at)
		if err != nil {
			return err
		}
		defer conn.Close(context.WithoutCancel(ctx)) //nolint:errcheck // nothing hangs on it
		_, err = conn.Exec(context.WithoutCancel(ctx), sql)
		return err
	}
	if err := run("CREATE DATABASE " + name); err != nil {
		return "", nil, fmt.Errorf("a scratch database could not be made: %w", err)
	}
	u.Path = "/" + name
	return u.String(), func() error { return run("DROP DATABASE IF EXISTS " + name + " WITH (FORCE)") }, nil
}

// openFile opens and checks a file, and says what is in it and what is wrong.
// What rows say is left alone where damaged ones are to be kept.
func openFile(ctx context.Context, out io.Writer, st *store.Store, path string, damaged bool) (*shopfile.File, func() error, error) {
	raw, err := os.Open(path)
	if err != nil {
		return nil, nil, err
	}
	at, err := raw.Stat()
	if err != nil {
		return nil, raw.Close, err
	}
	f, err := shopfile.Open(raw, at.Size())
	if err != nil {
		raw.Close()
		return nil, nil, err
	}
	check := f.Check
	if damaged {
		check = f.Intact
	}
	faults, err := check(ctx, st)
	if err == nil && len(faults) > 0 {
		for _, says := range (say.Voice{}).Each(faults) {
			fmt.Fprintln(out, says)
		}
		err = errors.New("the file can't be restored. Nothing was written")
	}
	if err != nil {
		raw.Close()
		return nil, nil, err
	}
	fmt.Fprintf(out, "%s, made %s by %s:\n", f.Name(), f.MadeAt.Local().Format("2 January 2006 15:04"), f.MadeBy)
	for _, table := range slices.Sorted(maps.Keys(f.ByTable())) {
		if n := f.ByTable()[table]; n > 0 {
			fmt.Fprintf(out, "  %-14s %d\n", table, n)
		}
	}
	return f, raw.Close, nil
}

// telling writes how far it is, a line a table and ten thousand rows.
func telling(w io.Writer) shopfile.Progress {
	return func(table string, rows int) {
		if rows > 0 {
			fmt.Fprintf(w, "%s: %d\n", table, rows)
		}
	}
}

func oneFile(cmd *cobra.Command, args []string) error {
	if len(args) != 1 {
		return fmt.Errorf("name one file: corte %s", cmd.Use)
	}
	return nil
}
