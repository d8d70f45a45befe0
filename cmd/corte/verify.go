package main

import (
	"errors"
	"fmt"
	"os"

	"github.com/spf13/cobra"

	"corte/internal/verify"
)

func verifyCommand() *cobra.Command {
	return &cobra.Command{
		Use:   "verify FILE...",
		Short: "Check the core's figures against worked cases",
		Long: "Runs files of worked cases, one line a case with the largest relative difference,\n" +
			"and fails where one is past 0.1 %, cannot be read, or is of an unknown kind.",
		Args: cobra.MinimumNArgs(1),
		RunE: func(cmd *cobra.Command, files []string) error {
			passed, failed := 0, 0
			for _, name := range files {
				results, err := verifyFile(name)
				if err != nil {
					return fmt.Errorf("%s: %w", name, err)
				}
				for _, r := range results {
					fmt.Fprintln(cmd.OutOrStdout(), r)
					if r.OK() {
						passed++
					} else {
						failed++
					}
				}
			}
			fmt.Fprintf(cmd.OutOrStdout(), "%d passed, %d failed\n", passed, failed)
			if failed > 0 {
				return errors.New("the core and the worked cases disagree")
			}
			return nil
		},
	}
}

func verifyFile(name string) ([]verify.Result, error) {
	f, err := os.Open(name)
	if err != nil {
		return nil, err
	}
	defer f.Close()
	return verify.Run(f)
}
