// Command corte-gauge stands in for dial gauges: it plays them on a saw whose
// truth its flags set, over the line protocol of docs/gauge.md.
package main

import (
	"context"
	"flag"
	"fmt"
	"net"
	"os"
	"os/signal"
	"strings"
	"syscall"
	"time"

	"corte/core/measure"
	"corte/internal/gaugesim"
)

func main() {
	t := gaugesim.Demo
	listen := flag.String("listen", "127.0.0.1:8270", "loopback address to answer on")
	names := flag.String("names", "dial", "names of the gauges, with commas between")
	rate := flag.Float64("rate", 10, "readings a second")
	length := func(p *measure.Length, name, says string) {
		flag.Float64Var((*float64)(p), name, p.Mm(), says+", mm")
	}
	length(&t.Heel, "heel", "heel, toward a fence on the right")
	length(&t.Fence, "fence", "how far the fence opens at the rear")
	length(&t.Arbor, "arbor", "amplitude of the arbor's run-out")
	length(&t.Blade, "blade", "amplitude of the blade's run-out")
	length(&t.Scatter, "scatter", "standard deviation of the teeth")
	length(&t.Noise, "noise", "standard deviation of one reading")
	flag.IntVar(&t.ProudTooth, "proud", t.ProudTooth, "tooth that stands proud, from 1; 0 for none")
	flag.Uint64Var(&t.Seed, "seed", t.Seed, "seed of scatter and noise")
	flag.Parse()

	ctx, stop := signal.NotifyContext(context.Background(), os.Interrupt, syscall.SIGTERM)
	defer stop()
	l, err := net.Listen("tcp", *listen)
	if err != nil {
		fmt.Fprintln(os.Stderr, "corte-gauge:", err)
		os.Exit(1)
	}
	fmt.Printf("Gauges %s answer at %s  (Ctrl-C stops them)\n", *names, l.Addr())
	gaugesim.Rig{Truth: t, Names: strings.Split(*names, ","), Every: time.Duration(float64(time.Second) / *rate)}.Serve(ctx, l)
}
