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

	_ "time/tzdata" // zones, where the system has none
)

func main() {
	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	if err := commands().ExecuteContext(ctx); err != nil {
		fmt.Fprintln(os.Stderr, "corte:", err)
		stop()
		os.Exit(1)
	}
}

func commands() *cobra.Command {
	root := &cobra.Command{
		Use:           "corte",
		Short:         "Workshop companion for circular saw blades",
		Long:          "Workshop companion for circular saw blades.\n\n" + settingsHelp(),
		SilenceUsage:  true,
		SilenceErrors: true,
		Args: func(_ *cobra.Command, args []string) error {
			if len(args) > 0 {
				return fmt.Errorf("there is no command %q. Run corte help for the list", args[0])
			}
			return nil
		},
		RunE: func(cmd *cobra.Command, _ []string) error { return cmd.Help() },
	}
	root.CompletionOptions.HiddenDefaultCmd = true
	root.AddCommand(serveCommand(), demoCommand(), migrateCommand(), conditionsCommand(), ownerCommand(), backupCommand(), restoreCommand(), drillCommand(), listenCommand(), lookCommand(), verifyCommand(), versionCommand())
	return root
}
