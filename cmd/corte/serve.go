package main

import (
	"cmp"
	"context"
	"fmt"
	"log/slog"
	"net"
	"net/http"
	"os"
	"sync"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/spf13/cobra"

	"corte/internal/demo"
	"corte/internal/events"
	"corte/internal/gauge"
	"corte/internal/gaugesim"
	"corte/internal/httpapi"
	"corte/internal/metrics"
	"corte/internal/pg"
	"corte/internal/shop"
	"corte/internal/shopfile"
	"corte/internal/store"
	"corte/web"
)

func serveCommand() *cobra.Command {
	return &cobra.Command{
		Use: "serve", Short: "Serve the application", Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			return run(cmd.Context(), true, func(ctx context.Context, _ *sync.WaitGroup, s *settings, st *store.Store) (store.Shop, error) {
				sh, _, err := st.EnsureShop(ctx, store.Shop{ID: uuid.New(), Slug: s.Shop, Name: "Our shop", ChangeMinutes: 3})
				return sh, err
			})
		},
	}
}

func demoCommand() *cobra.Command {
	return &cobra.Command{
		Use: "demo", Short: "Serve the application with the demo shop", Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			return run(cmd.Context(), false, furnishDemo)
		},
	}
}

// furnishDemo furnishes the demo shop, with a dial on its table saw where no gauge
// is named.
func furnishDemo(ctx context.Context, group *sync.WaitGroup, s *settings, st *store.Store) (store.Shop, error) {
	if len(s.Gauges) == 0 {
		l, err := net.Listen("tcp", "127.0.0.1:0")
		if err != nil {
			return store.Shop{}, err
		}
		rig := gaugesim.Rig{Truth: gaugesim.Demo, Names: []string{"dial"}, Every: 10 * time.Millisecond}
		group.Go(func() { rig.Serve(ctx, l) })
		s.Gauges = []string{l.Addr().String()}
	}
	return demo.Furnish(ctx, st, time.Now())
}

// noCopies is where CORTE_COPIES says that none are made.
const noCopies = "none"

// databaseName is the database in a PostgreSQL of Corte's own.
const databaseName = "corte"

// openStore connects to DATABASE_URL, or to a PostgreSQL of its own, and
// brings it up to date. done lets go of both.
func openStore(ctx context.Context, s settings, tracer ...pgx.QueryTracer) (st *store.Store, done func(), err error) {
	url, stop := s.DatabaseURL, func() {}
	var server *pg.Server // of its own; nil for DATABASE_URL
	if url == "" {
		if server, err = pg.Start(ctx, pg.Options{Dir: s.Data}); err != nil {
			return nil, nil, err
		}
		stop = server.Stop
		if err := server.EnsureDatabase(ctx, databaseName); err != nil {
			stop()
			return nil, nil, err
		}
		url = server.URL(databaseName)
	}
	st, err = store.OpenThrough(ctx, s.Pooler, url, tracer...)
	if err != nil {
		stop()
		return nil, nil, err
	}
	done = func() {
		st.Close()
		stop()
	}
	if err := st.Migrate(ctx); err != nil {
		done()
		return nil, nil, err
	}
	if server == nil {
		return st, done, nil
	}
	// In a PostgreSQL of its own Corte serves as roles that own nothing.
	st.Close()
	if err = server.EnsureRoles(ctx, databaseName); err == nil {
		serving, keeping := server.RoleURLs(databaseName)
		st, err = store.OpenAs(ctx, url, serving, keeping, tracer...)
	}
	if err != nil {
		stop()
		return nil, nil, err
	}
	return st, done, nil
}

// run serves a shop until ctx ends, then lets requests under way finish and
// stops everything that it started. People sign in where the settings say so, or
// where that is usual.
func run(ctx context.Context, usual bool, furnish func(context.Context, *sync.WaitGroup, *settings, *store.Store) (store.Shop, error)) error {
	s, err := readSettings()
	if err != nil {
		return err
	}
	log, err := logger(s.LogLevel)
	if err != nil {
		return err
	}
	slog.SetDefault(log)
	// The port first: it is the likeliest thing to be wrong, and nothing has
	// been started yet.
	how, err := s.reached(usual)
	if err != nil {
		return err
	}
	l, err := listen("CORTE_LISTEN", s.Listen)
	if err != nil {
		return err
	}
	defer l.Close()
	at := how.url(l, s)
	if l, err = how.over(l); err != nil {
		return err
	}
	counts, stopDebug, err := debugServer(s.Debug)
	if err != nil {
		return err
	}
	defer stopDebug()
	st, done, err := openStore(ctx, s, counts)
	if err != nil {
		return err
	}
	defer done()
	// All that runs beside requests is of this group, and ends before the store closes.
	var group sync.WaitGroup
	ctx, cancel := context.WithCancel(ctx)
	defer func() {
		cancel()
		group.Wait()
	}()
	counts.Pool(st.Stat)
	sh, err := furnish(ctx, &group, &s, st)
	if err != nil {
		return err
	}
	gauges := gauge.New(s.Gauges, log)
	svc := shop.New(st, time.Now)
	defer svc.Stop()
	o := httpapi.Options{Service: svc, Shop: sh.ID, Web: web.Files(), Pages: web.Pages, Log: log, Gauges: gauges, By: madeBy(), Metrics: counts, Hosts: lower(s.Hosts), Proxies: s.Proxies}
	if how.signIn {
		o.SignIn = &httpapi.SignIn{Secure: how.secure}
	}
	if s.Copies != noCopies {
		o.Copies = &shopfile.Keeper{Store: st, Shop: sh.ID, Dir: s.Copies, Keep: s.Keep, By: o.By, Now: time.Now}
		group.Go(func() { o.Copies.Run(ctx, log) })
	}
	o.Events = events.New(st.ListenURL(), st, log, gauges, sh.ID)
	group.Go(func() { o.Events.Run(ctx) })
	h, err := httpapi.New(o)
	if err != nil {
		return err
	}
	h = lookRound(h, st, o, sh.Slug == demo.Slug)
	if err := sweepScratch(ctx, st); err != nil { // a server without the right to drop databases has none of drills
		log.Debug("scratch databases were not swept", "error", err)
	}
	group.Go(func() { gauges.Run(ctx) })
	group.Go(func() { sweep(ctx, svc) })
	if how.signIn {
		if err := inviteOwner(ctx, svc, sh, at); err != nil {
			return err
		}
	}
	srv := &http.Server{
		Handler: h, ReadHeaderTimeout: 5 * time.Second, ReadTimeout: 15 * time.Second, WriteTimeout: 30 * time.Second,
		IdleTimeout: 2 * time.Minute, MaxHeaderBytes: 32 << 10, ErrorLog: slog.NewLogLogger(log.Handler(), slog.LevelWarn),
	}
	ended := make(chan error, 1)
	group.Go(func() { ended <- srv.Serve(l) })
	fmt.Printf("Corte is ready: %s  (Ctrl-C stops it)\n", at)
	select {
	case err := <-ended:
		return err
	case <-ctx.Done():
	}
	fmt.Println("Corte is stopping.")
	grace, enough := context.WithTimeout(context.WithoutCancel(ctx), 10*time.Second)
	defer enough()
	defer srv.Close() // whoever is still not done is let go
	return srv.Shutdown(grace)
}

// debugServer serves metrics and profiles on an address of their own, where one
// is given, until stop is called; the metrics are counted in any case.
func debugServer(addr string) (counts *metrics.Metrics, stop func(), err error) {
	counts = metrics.New()
	srv := &http.Server{Handler: counts.Handler(), ReadHeaderTimeout: 5 * time.Second}
	if addr == "" {
		return counts, func() {}, nil
	}
	if here, err := onLoopback("CORTE_DEBUG", addr); err != nil || !here {
		return nil, nil, cmp.Or(err, fmt.Errorf("CORTE_DEBUG %q is not on loopback; metrics and profiles are for this machine alone", addr))
	}
	l, err := listen("CORTE_DEBUG", addr)
	if err != nil {
		return nil, nil, err
	}
	var serving sync.WaitGroup
	serving.Go(func() { _ = srv.Serve(l) })
	return counts, func() {
		srv.Close()
		serving.Wait()
	}, nil
}

// inviteOwner shows the one address by which a shop that nobody can sign in to
// gets its first owner.
func inviteOwner(ctx context.Context, svc *shop.Service, sh store.Shop, at string) error {
	secret, err := svc.People.FirstOwner(ctx, sh.ID)
	if err == nil && secret != "" {
		fmt.Printf("Nobody can sign in to %s yet. Create its owner here, once, within a day: %s/join/%s\n", sh.Name, at, secret)
	}
	return err
}

// sweep forgets old answers once a day, and at every start.
func sweep(ctx context.Context, svc *shop.Service) {
	for {
		if err := svc.Sweep(ctx); err != nil && ctx.Err() == nil {
			slog.Warn("old answers were not swept", "error", err)
		}
		select {
		case <-ctx.Done():
			return
		case <-time.After(24 * time.Hour):
		}
	}
}

func logger(level string) (*slog.Logger, error) {
	var l slog.Level
	if err := l.UnmarshalText([]byte(level)); err != nil {
		return nil, fmt.Errorf("CORTE_LOG %q is not debug, info, warn or error", level)
	}
	return slog.New(slog.NewTextHandler(os.Stderr, &slog.HandlerOptions{Level: l})), nil
}
