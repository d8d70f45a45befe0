package pgtest

import (
	"fmt"
	"net"
	"net/url"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"syscall"
	"testing"
	"time"

	"corte/internal/pg"
)

// Pooler runs pgbouncer in transaction mode before the database at a URL until
// the test is over, with two connections for all who come, and says where it is.
func Pooler(t testing.TB, to string) string {
	t.Helper()
	program, err := exec.LookPath("/usr/sbin/pgbouncer")
	if err != nil {
		t.Fatal("pgbouncer is missing; CORTE_BROWSER=1 scripts/setup.sh installs it")
	}
	u, err := url.Parse(to)
	if err != nil {
		t.Fatal(err)
	}
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		t.Fatal(err)
	}
	port := l.Addr().(*net.TCPAddr).Port
	l.Close()
	dir, err := os.MkdirTemp("", "corte-pooler-") // the user postgres cannot reach into t.TempDir
	if err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() { os.RemoveAll(dir) })
	password, _ := u.User.Password()
	file := filepath.Join(dir, "pgbouncer.ini")
	if err := os.WriteFile(file, fmt.Appendf(nil, `[databases]
* = host=%s port=%s user=%s password=%s
[pgbouncer]
listen_addr = 127.0.0.1
listen_port = %d
unix_socket_dir =
auth_type = any
pool_mode = transaction
default_pool_size = 2
max_client_conn = 200
ignore_startup_parameters = extra_float_digits
`, u.Hostname(), u.Port(), u.User.Username(), password, port), 0o644); err != nil {
		t.Fatal(err)
	}
	cmd := exec.Command(program, "-q", file)
	cmd.Stderr = os.Stderr
	as, err := pg.RunAs() // it refuses to run as root, too
	if err != nil {
		t.Fatal(err)
	}
	cmd.SysProcAttr = &syscall.SysProcAttr{Credential: as, Pdeathsig: syscall.SIGKILL}
	if as != nil {
		if err := os.Chown(dir, int(as.Uid), int(as.Gid)); err != nil {
			t.Fatal(err)
		}
	}
	if err := cmd.Start(); err != nil {
		t.Fatal(err)
	}
	t.Cleanup(func() {
		cmd.Process.Kill() //nolint:errcheck // it may have ended
		cmd.Wait()         //nolint:errcheck // by the signal
	})
	at := net.JoinHostPort("127.0.0.1", strconv.Itoa(port))
	for range 100 {
		if c, err := net.Dial("tcp", at); err == nil {
			c.Close()
			u.Host = at
			return u.String()
		}
		time.Sleep(50 * time.Millisecond)
	}
	t.Fatal("pgbouncer does not listen")
	return ""
}
