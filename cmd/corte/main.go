// Command corte serves the workshop companion, sets up its demo shop, and
// checks its figures against worked cases.
package main

import (
	"context"
	"fmt"
	"os"
	"os/signal"
	"syscall"

	"github.com/spf13/cobra"
)

func main() {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	root := &cobra.Command{
		Use:           "corte",
		Short:         "Workshop companion for circular saw blades",
		SilenceUsage:  true,
		SilenceErrors: true,
	}
	root.AddCommand(serveCommand(), demoCommand(), migrateCommand(), conditionsCommand(), verifyCommand())
	if err := root.ExecuteContext(ctx); err != nil {
		fmt.Fprintln(os.Stderr, "corte:", err)
		stop()
		os.Exit(1)
	}
}
