package main

import (
	"fmt"
	"runtime/debug"

	"github.com/spf13/cobra"

	"corte/core/history"
	"corte/internal/httpapi/contract"
)

func versionCommand() *cobra.Command {
	return &cobra.Command{
		Use: "version", Short: "Print the version", Args: cobra.NoArgs,
		RunE: func(cmd *cobra.Command, _ []string) error {
			spec, err := contract.GetSpec()
			if err != nil {
				return err
			}
			info, ok := debug.ReadBuildInfo()
			if !ok {
				info = &debug.BuildInfo{}
			}
			_, err = fmt.Fprintf(cmd.OutOrStdout(), "corte %s, %s, fold %d, %s\n", spec.Info.Version, commit(info), history.ConditionFold, info.GoVersion)
			return err
		},
	}
}

// commit is what the build was made from, as far as it is known: a build out
// of an archive does not know it.
func commit(info *debug.BuildInfo) string {
	of := map[string]string{}
	for _, s := range info.Settings {
		of[s.Key] = s.Value
	}
	switch {
	case of["vcs.revision"] == "":
		return "commit not known"
	case of["vcs.modified"] == "true":
		return "commit " + of["vcs.revision"] + " with changes"
	}
	return "commit " + of["vcs.revision"] + " of " + of["vcs.time"]
}

// madeBy is what a copy says of the Corte that wrote it.
func madeBy() string {
	info, ok := debug.ReadBuildInfo()
	if !ok {
		info = &debug.BuildInfo{}
	}
	return "corte " + commit(info)
}
