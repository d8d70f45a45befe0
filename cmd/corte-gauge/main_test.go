package main_test

import (
	"bufio"
	"fmt"
	"net"
	"os/exec"
	"path/filepath"
	"strings"
	"syscall"
	"testing"
	"time"
)

// The stand-in as people start it: it greets, reads in order, goes where a hand
// puts it, shows the truth that its flags set, and ends on Ctrl-C.
func TestStandIn(t *testing.T) {
	bin := filepath.Join(t.TempDir(), "corte-gauge")
	if out, err := exec.Command("go", "build", "-o", bin, ".").CombinedOutput(); err != nil {
		t.Fatalf("%v: %s", err, out)
	}
	c := exec.Command(bin, "-listen", "127.0.0.1:0", "-names", "dial,depth", "-heel", "0.3", "-noise", "0", "-rate", "200")
	c.SysProcAttr = &syscall.SysProcAttr{Pdeathsig: syscall.SIGTERM}
	out, err := c.StdoutPipe()
	if err != nil {
		t.Fatal(err)
	}
	if err := c.Start(); err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { _ = c.Process.Kill() })
	line, err := bufio.NewReader(out).ReadString('\n')
	if err != nil {
		t.Fatal(err)
	}
	addr := strings.Fields(strings.SplitAfter(line, "answer at ")[1])[0]
	conn, err := net.Dial("tcp", addr)
	if err != nil {
		t.Fatal(err)
	}
	defer conn.Close()
	_ = conn.SetDeadline(time.Now().Add(10 * time.Second))
	lines := bufio.NewScanner(conn)
	next := func() string {
		t.Helper()
		if !lines.Scan() {
			t.Fatal("it fell silent")
		}
		return lines.Text()
	}
	if a, b := next(), next(); a != "gauge dial stand-in" || b != "gauge depth stand-in" {
		t.Fatalf("it greets with %q and %q", a, b)
	}
	last := map[string]int{}
	shows := func(want float64) {
		t.Helper()
		for range 400 {
			var name string
			var seq int
			var v float64
			if _, err := fmt.Sscanf(next(), "%s %d %f mm", &name, &seq, &v); err != nil || seq <= last[name] {
				t.Fatalf("after reading %d of %s comes %d, %v", last[name], name, seq, err)
			}
			last[name] = seq
			if name == "dial" && v == want {
				return
			}
		}
		t.Fatalf("it never showed %v", want)
	}
	shows(0)
	fmt.Fprintln(conn, "place dial heel-front 0 1")
	shows(0.2)
	fmt.Fprintln(conn, "nonsense")
	fmt.Fprintln(conn, "place dial heel-rear 0 1")
	shows(0.5)
	_ = c.Process.Signal(syscall.SIGINT)
	if err := c.Wait(); err != nil {
		t.Errorf("Ctrl-C: %v", err)
	}
}
