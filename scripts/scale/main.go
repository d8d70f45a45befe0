// Command scale fills a database with shops of five years and loads a Corte
// that serves it, for docs/scale.md:
//
//	go run ./scripts/scale fill -shops 1000 postgres://… >tokens
//	go run ./scripts/scale load -clients 20 -for 1m http://127.0.0.1:8254 <tokens
//
// Every shop is the demo shop, its season repeated to five years. fill writes a
// token a line, of as many shops as clients need; the database's role must be a
// superuser, since keys to other tables are not checked while it copies.
package main

import (
	"bufio"
	"context"
	"flag"
	"fmt"
	"os"
	"os/signal"
	"time"
)

func main() {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt)
	defer stop()
	if err := run(ctx, os.Args[1:]); err != nil {
		fmt.Fprintln(os.Stderr, "scale:", err)
		os.Exit(1)
	}
}

func run(ctx context.Context, args []string) error {
	if len(args) == 0 {
		return fmt.Errorf("say fill or load")
	}
	flags := flag.NewFlagSet(args[0], flag.ContinueOnError)
	shops := flags.Int("shops", 1, "how many shops there shall be")
	clients := flags.Int("clients", 20, "how many ask at once")
	lasts := flags.Duration("for", time.Minute, "for how long they ask")
	if err := flags.Parse(args[1:]); err != nil {
		return err
	}
	switch args[0] {
	case "fill":
		tokens, err := fill(ctx, flags.Arg(0), *shops, *clients)
		for _, t := range tokens {
			fmt.Println(t)
		}
		return err
	case "load":
		var tokens []string
		for in := bufio.NewScanner(os.Stdin); in.Scan(); {
			tokens = append(tokens, in.Text())
		}
		took, err := load(ctx, flags.Arg(0), tokens, *clients, *lasts)
		if err != nil {
			return err
		}
		fmt.Print(table(took, *lasts))
		return nil
	}
	return fmt.Errorf("there is no %q; say fill or load", args[0])
}
