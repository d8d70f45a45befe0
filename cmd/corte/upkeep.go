package main

import (
	"fmt"
	"time"

	"github.com/spf13/cobra"

	"corte/internal/pg"
	"corte/internal/shop"
	"corte/internal/store"
)

func migrateCommand() *cobra.Command {
	return &cobra.Command{
		Use: "migrate", Short: "Bring the database up to date and end", Args: cobra.NoArgs,
		RunE: beside(func(cmd *cobra.Command, _ []string, _ settings, _ *store.Store) error {
			fmt.Fprintln(cmd.OutOrStdout(), "The database is up to date.")
			return nil
		}),
	}
}

func conditionsCommand() *cobra.Command {
	var mend bool
	cmd := &cobra.Command{
		Use: "conditions", Short: "Recompute every blade's condition from its log and compare", Args: cobra.NoArgs,
		RunE: beside(func(cmd *cobra.Command, _ []string, _ settings, st *store.Store) error {
			blades, drifts, err := st.Conditions(cmd.Context(), mend)
			if err != nil {
				return err
			}
			out := cmd.OutOrStdout()
			for _, d := range drifts {
				if d.Parts {
					fmt.Fprintf(out, "%s: its parts are not held to be what its grooves say\n", d.Blade)
				}
				fmt.Fprintf(out, "%s: the snapshot says worn %.6g m², pitchy %.6g m²; the log %.6g and %.6g\n", d.Blade, d.Kept.WearM2, d.Kept.ResinM2, d.Folded.WearM2, d.Folded.ResinM2)
			}
			switch {
			case len(drifts) == 0:
				fmt.Fprintf(out, "The conditions of all %d blades match their logs.\n", blades)
			case mend:
				fmt.Fprintf(out, "%d of %d conditions were recomputed.\n", len(drifts), blades)
			default:
				return fmt.Errorf("%d of %d conditions differ from their logs. Run corte conditions --mend to recompute them", len(drifts), blades)
			}
			return nil
		}),
	}
	cmd.Flags().BoolVar(&mend, "mend", false, "save the recomputed conditions")
	return cmd
}

func ownerCommand() *cobra.Command {
	return &cobra.Command{
		Use: "owner", Short: "Create a one-time link to become an owner of the shop", Args: cobra.NoArgs,
		Long: "Creates a link to become an owner of the shop (CORTE_SHOP). It works once, within a day. Use it when no owner can sign in any more.",
		RunE: beside(func(cmd *cobra.Command, _ []string, s settings, st *store.Store) error {
			sh, err := st.ShopNamed(cmd.Context(), s.Shop)
			if err != nil {
				return fmt.Errorf("this database has no shop %q. Set CORTE_SHOP to one", s.Shop)
			}
			secret, err := shop.New(st, time.Now).People.AnotherOwner(cmd.Context(), sh.ID)
			if err == nil {
				fmt.Fprintf(cmd.OutOrStdout(), "Add this to Corte's address within a day:\n/join/%s\n", secret)
			}
			return err
		}),
	}
}

// beside runs a command on the store of its settings. It may run while another
// Corte serves the same data folder: they share its PostgreSQL.
func beside(act func(cmd *cobra.Command, args []string, s settings, st *store.Store) error) func(*cobra.Command, []string) error {
	return func(cmd *cobra.Command, args []string) error {
		s, err := readSettings()
		if err != nil {
			return err
		}
		if s.DatabaseURL == "" {
			s.DatabaseURL = pg.Running(cmd.Context(), s.Data, databaseName)
		}
		st, done, err := openStore(cmd.Context(), s)
		if err != nil {
			return err
		}
		defer done()
		return act(cmd, args, s, st)
	}
}
