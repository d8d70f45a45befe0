// Package pg finds the PostgreSQL that the system's packages installed and
// runs one of Corte's own on loopback, in a data folder of its own.
//
// The server is a child of this process and is told by the kernel to shut down
// when its parent dies, however that happens, so a Corte that was killed hard
// leaves nothing running and its next start finds a database that recovers by
// itself. A server that ends by itself, killed or in a panic, is started again
// at the same address, after pauses that grow for as long as it fails.
package pg

import (
	"bytes"
	"context"
	"crypto/rand"
	"crypto/sha256"
	"encoding/hex"
	"errors"
	"fmt"
	"log/slog"
	"net"
	"net/url"
	"os"
	"os/exec"
	"os/user"
	"path/filepath"
	"runtime"
	"slices"
	"sort"
	"strconv"
	"strings"
	"sync"
	"syscall"
	"time"

	"github.com/jackc/pgx/v5"
)

// superuser owns the databases; the operating system's user need not exist.
const superuser = "corte"

// leastFree is the room on the disk under which a start is refused: initdb
// takes 40 MB, and a database that runs full mid-write helps nobody.
const leastFree = 200 << 20

// Options say where and how to run.
type Options struct {
	Dir       string // holds the cluster, its password and its log
	Throwaway bool   // trade all safety for speed: for tests alone

	// Patience is how long to wait for a folder that another server, such as
	// one that was killed a moment ago, is still letting go of. 0 means 15 s.
	Patience time.Duration
}

// A Server is a PostgreSQL that is kept running.
type Server struct {
	dir, password string
	port          int
	throwaway     bool
	bin           string
	as            *syscall.Credential

	mu      sync.Mutex
	stopped chan struct{} // closed by Stop
	cmd     *exec.Cmd
	done    chan struct{} // closed when the process has ended

	watching sync.WaitGroup // starts PostgreSQL again where it ends by itself
}

// URL is where to connect to a database of the server.
func (s *Server) URL(database string) string {
	u := url.URL{
		Scheme: "postgres", User: url.UserPassword(superuser, s.password),
		Host: net.JoinHostPort("127.0.0.1", strconv.Itoa(s.port)), Path: "/" + database,
	}
	return u.String()
}

// Roles that a serving Corte signs in to the database with. Neither is a
// superuser, owns anything or may become another: whatever reaches the database
// from a request is held to what they may do.
const (
	serves = "corte_serves" // one shop's rows, by row level security; migrations say which
	keeps  = "corte_keeps"  // accounts, and what is done over all shops; every row, and no table
)

// roleURL is where to connect as a role. Its password follows from the server's,
// so that nothing more has to be kept.
func (s *Server) roleURL(role, database string) string {
	sum := sha256.Sum256([]byte(role + " " + s.password))
	u := url.URL{
		Scheme: "postgres", User: url.UserPassword(role, hex.EncodeToString(sum[:])),
		Host: net.JoinHostPort("127.0.0.1", strconv.Itoa(s.port)), Path: "/" + database,
	}
	return u.String()
}

// RoleURLs are where a serving Corte signs in to a database: for what it does in
// one shop, and for accounts and all shops.
func (s *Server) RoleURLs(database string) (serving, keeping string) {
	return s.roleURL(serves, database), s.roleURL(keeps, database)
}

// EnsureRoles lets a serving Corte sign in to a migrated database. It may be asked
// again at any time.
func (s *Server) EnsureRoles(ctx context.Context, database string) error {
	conn, err := pgx.Connect(ctx, s.URL(database))
	if err != nil {
		return err
	}
	defer conn.Close(context.WithoutCancel(ctx)) //nolint:errcheck // nothing hangs on it
	serving, keeping := s.RoleURLs(database)
	tx, err := conn.Begin(ctx)
	if err != nil {
		return err
	}
	defer tx.Rollback(context.WithoutCancel(ctx)) //nolint:errcheck // after a commit there is nothing to roll back
	// Of two that start at once one waits: roles belong to all databases.
	sql := []string{`SELECT pg_advisory_xact_lock(hashtextextended('corte roles', 0))`,
		`DO $$ BEGIN CREATE ROLE ` + keeps + `; EXCEPTION WHEN duplicate_object THEN NULL; END $$`}
	for role, at := range map[string]string{serves: serving, keeps: keeping} {
		u, err := url.Parse(at)
		if err != nil {
			return err
		}
		password, _ := u.User.Password()
		sql = append(sql, `ALTER ROLE `+role+` LOGIN NOSUPERUSER NOCREATEDB NOCREATEROLE NOREPLICATION PASSWORD '`+password+`'`)
	}
	sql = append(sql, `ALTER ROLE `+serves+` NOBYPASSRLS`, `ALTER ROLE `+keeps+` BYPASSRLS`,
		`GRANT SELECT, INSERT, UPDATE, DELETE ON ALL TABLES IN SCHEMA public TO `+keeps, `GRANT USAGE, SELECT, UPDATE ON ALL SEQUENCES IN SCHEMA public TO `+keeps,
		// Tables that a later Corte makes while this one serves.
		`ALTER DEFAULT PRIVILEGES IN SCHEMA public GRANT SELECT, INSERT, UPDATE, DELETE ON TABLES TO `+keeps,
		`ALTER DEFAULT PRIVILEGES IN SCHEMA public GRANT USAGE, SELECT, UPDATE ON SEQUENCES TO `+keeps)
	for _, one := range sql {
		if _, err := tx.Exec(ctx, one); err != nil {
			return fmt.Errorf("the database's roles could not be set up: %w", err)
		}
	}
	return tx.Commit(ctx)
}

// Start runs the server, setting up its cluster on the first start. Errors are
// sentences with the remedy.
func Start(ctx context.Context, o Options) (*Server, error) {
	bin, err := find()
	if err != nil {
		return nil, err
	}
	as, err := RunAs()
	if err != nil {
		return nil, err
	}
	if err := prepare(o.Dir, as); err != nil {
		return nil, err
	}
	s := &Server{dir: o.Dir, throwaway: o.Throwaway, bin: bin, as: as, stopped: make(chan struct{})}
	if s.password, err = s.ensureCluster(ctx); err != nil {
		return nil, err
	}
	if s.port, err = freePort(); err != nil {
		return nil, err
	}
	patience := o.Patience
	if patience == 0 {
		patience = 15 * time.Second
	}
	for deadline := time.Now().Add(patience); ; {
		err := s.launch(ctx)
		if err == nil {
			s.watching.Go(s.watch)
			return s, nil
		}
		if !errors.Is(err, errHeld) || time.Now().After(deadline) {
			return nil, err
		}
		time.Sleep(200 * time.Millisecond)
	}
}

// Running is where a server that runs on a data folder already, as another
// Corte's, serves a database; "" where none does.
func Running(ctx context.Context, dir, database string) string {
	s := Server{dir: dir}
	pid, err := os.ReadFile(filepath.Join(s.data(), "postmaster.pid"))
	if err != nil {
		return ""
	}
	lines := strings.Split(string(pid), "\n") // the fourth is its port
	password, err := os.ReadFile(s.passwordFile())
	if err != nil || len(lines) < 4 {
		return ""
	}
	if s.port, err = strconv.Atoi(lines[3]); err != nil {
		return ""
	}
	s.password = strings.TrimSpace(string(password))
	ctx, cancel := context.WithTimeout(ctx, 2*time.Second)
	defer cancel()
	conn, err := pgx.Connect(ctx, s.URL(database))
	if err != nil {
		return ""
	}
	_ = conn.Close(ctx)
	return s.URL(database)
}

var errHeld = errors.New("another Corte is using this data folder. Stop it first, or set CORTE_DATA to another folder")

// find looks for PostgreSQL's programs where packages put them.
func find() (string, error) {
	if p, err := exec.LookPath("postgres"); err == nil {
		return filepath.Dir(p), nil
	}
	dirs, _ := filepath.Glob("/usr/lib/postgresql/*/bin")
	sort.Slice(dirs, func(i, j int) bool { return version(dirs[i]) > version(dirs[j]) })
	for _, d := range dirs {
		if _, err := os.Stat(filepath.Join(d, "postgres")); err == nil {
			return d, nil
		}
	}
	return "", errors.New("PostgreSQL is not installed; install the package postgresql, or set DATABASE_URL to one that runs elsewhere")
}

func version(bin string) int {
	n, _ := strconv.Atoi(filepath.Base(filepath.Dir(bin)))
	return n
}

// RunAs is the user for PostgreSQL, which refuses to run as root; nil means
// the user that runs Corte.
func RunAs() (*syscall.Credential, error) {
	if os.Geteuid() != 0 {
		return nil, nil
	}
	u, err := user.Lookup("postgres")
	if err != nil {
		return nil, errors.New("PostgreSQL can't run as root and there is no user postgres. Install the package postgresql, or start Corte as another user")
	}
	uid, _ := strconv.ParseUint(u.Uid, 10, 32)
	gid, _ := strconv.ParseUint(u.Gid, 10, 32)
	return &syscall.Credential{Uid: uint32(uid), Gid: uint32(gid)}, nil
}

func prepare(dir string, as *syscall.Credential) error {
	if err := os.MkdirAll(dir, 0o755); err != nil {
		return fmt.Errorf("can't create the data folder (%w). Set CORTE_DATA to a folder you can write to", err)
	}
	if as != nil {
		if err := os.Chown(dir, int(as.Uid), int(as.Gid)); err != nil {
			return fmt.Errorf("the data folder cannot be given to the user postgres: %w", err)
		}
	}
	var fs syscall.Statfs_t
	if err := syscall.Statfs(dir, &fs); err == nil && fs.Bavail*uint64(fs.Bsize) < leastFree {
		return fmt.Errorf("the disk is full: %s has %d MB left and Corte needs %d. Make room, or set CORTE_DATA to a folder on another disk",
			dir, fs.Bavail*uint64(fs.Bsize)>>20, leastFree>>20)
	}
	return nil
}

func (s *Server) data() string         { return filepath.Join(s.dir, "cluster") }
func (s *Server) passwordFile() string { return filepath.Join(s.dir, "password") }

// ensureCluster makes the cluster on the first start and returns its password.
// It is made beside its place and moved there whole, so that a first start
// that was cut short is simply begun again.
func (s *Server) ensureCluster(ctx context.Context) (string, error) {
	pwfile := s.passwordFile()
	if _, err := os.Stat(s.data()); err == nil {
		pw, err := os.ReadFile(pwfile)
		return strings.TrimSpace(string(pw)), err
	}
	password := rand.Text()
	if err := os.WriteFile(pwfile, []byte(password), 0o600); err != nil {
		return "", fullOr(err)
	}
	if as := s.as; as != nil {
		if err := os.Chown(pwfile, int(as.Uid), int(as.Gid)); err != nil {
			return "", err
		}
	}
	half := s.data() + ".new"
	if err := os.RemoveAll(half); err != nil {
		return "", err
	}
	// It ends with Corte, so that the next start does not clear away under its hands.
	runtime.LockOSThread()
	defer runtime.UnlockOSThread()
	cmd := exec.CommandContext(ctx, filepath.Join(s.bin, "initdb"), "-D", half, "-U", superuser, "-E", "UTF8",
		"--locale=C.UTF-8", "--auth=scram-sha-256", "--pwfile="+pwfile)
	cmd.Dir = s.dir
	cmd.SysProcAttr = &syscall.SysProcAttr{Credential: s.as, Pdeathsig: syscall.SIGKILL}
	if out, err := cmd.CombinedOutput(); err != nil {
		return "", fullOr(fmt.Errorf("PostgreSQL could not set up its data folder: %s", lastLine(out)))
	}
	return password, os.Rename(half, s.data())
}

// launch starts the server and waits until it answers.
func (s *Server) launch(ctx context.Context) error {
	log, err := os.OpenFile(s.log(), os.O_CREATE|os.O_TRUNC|os.O_RDWR, 0o644)
	if err != nil {
		return fullOr(err)
	}
	defer log.Close()
	args := []string{"-D", s.data(), "-p", strconv.Itoa(s.port), "-c", "listen_addresses=127.0.0.1", "-c", "unix_socket_directories="}
	if s.throwaway {
		args = append(args, "-c", "fsync=off", "-c", "synchronous_commit=off", "-c", "full_page_writes=off")
	}
	cmd := exec.Command(filepath.Join(s.bin, "postgres"), args...)
	cmd.Dir = s.dir
	cmd.Stdout, cmd.Stderr = log, log
	// Its own process group, so that a Ctrl-C in the terminal reaches Corte
	// alone, which then stops it in order. SIGINT asks for a fast shutdown.
	cmd.SysProcAttr = &syscall.SysProcAttr{Credential: s.as, Setpgid: true, Pdeathsig: syscall.SIGINT}
	done := make(chan struct{})
	s.mu.Lock()
	select {
	case <-s.stopped:
		s.mu.Unlock()
		return errStopped
	default:
	}
	started := make(chan error, 1)
	go func() {
		// The death signal is tied to the thread that forks, so that thread must
		// live on. It is given back afterwards: a goroutine that ends locked takes
		// its thread along, and that would signal whatever else it had started.
		runtime.LockOSThread()
		defer runtime.UnlockOSThread()
		defer close(done)
		if err := cmd.Start(); err != nil {
			started <- err
			return
		}
		started <- nil
		_ = cmd.Wait()
	}()
	err = <-started
	if err == nil {
		s.cmd, s.done = cmd, done
	}
	s.mu.Unlock()
	if err != nil {
		return fmt.Errorf("PostgreSQL does not start: %w", err)
	}
	return s.awaitReady(ctx, done, log.Name())
}

// watch starts the server again whenever it ends by itself, until Stop.
func (s *Server) watch() {
	for {
		_, done := s.process()
		select {
		case <-s.stopped:
			return
		case <-done:
		}
		for pause := firstPause; ; pause = min(2*pause, longestPause) {
			out, _ := os.ReadFile(s.log())
			select {
			case <-s.stopped:
				return
			case <-time.After(pause):
			}
			slog.Error("PostgreSQL ended by itself; it is started again", "its last words", lastLine(out))
			err := s.launch(context.Background())
			if err == nil {
				slog.Info("PostgreSQL answers again")
				break
			}
			if errors.Is(err, errStopped) {
				return
			}
			slog.Error("PostgreSQL is not up yet", "error", err)
		}
	}
}

// Pauses between tries to start again, growing from one to the other.
const (
	firstPause   = 50 * time.Millisecond
	longestPause = 10 * time.Second
)

var errStopped = errors.New("stopped")

// process is what runs now, or ran last, and what is closed when it has ended.
func (s *Server) process() (*exec.Cmd, chan struct{}) {
	s.mu.Lock()
	defer s.mu.Unlock()
	return s.cmd, s.done
}

func (s *Server) log() string { return filepath.Join(s.dir, "postgres.log") }

func (s *Server) awaitReady(ctx context.Context, done <-chan struct{}, log string) error {
	ctx, cancel := context.WithTimeout(ctx, 60*time.Second)
	defer cancel()
	for {
		conn, err := pgx.Connect(ctx, s.URL("postgres"))
		if err == nil {
			return conn.Close(ctx)
		}
		select {
		case <-done:
			out, _ := os.ReadFile(log)
			if bytes.Contains(out, []byte("postmaster.pid")) || bytes.Contains(out, []byte("shared memory block")) {
				return errHeld
			}
			return fullOr(fmt.Errorf("PostgreSQL does not start: %s (more in %s)", lastLine(out), log))
		case <-ctx.Done():
			s.end()
			return fmt.Errorf("PostgreSQL does not answer (more in %s)", log)
		case <-time.After(30 * time.Millisecond):
		}
	}
}

// EnsureDatabase creates a database if the server does not have it yet.
func (s *Server) EnsureDatabase(ctx context.Context, name string) error {
	conn, err := pgx.Connect(ctx, s.URL("postgres"))
	if err != nil {
		return err
	}
	defer conn.Close(ctx)
	var there bool
	if err := conn.QueryRow(ctx, `SELECT EXISTS (SELECT FROM pg_database WHERE datname = $1)`, name).Scan(&there); err != nil || there {
		return err
	}
	_, err = conn.Exec(ctx, `CREATE DATABASE `+pgx.Identifier{name}.Sanitize())
	return err
}

// Stop shuts the server down for good and waits for it.
func (s *Server) Stop() {
	s.leave()
	s.end()
	s.watching.Wait()
}

// leave stops the watching.
func (s *Server) leave() {
	s.mu.Lock()
	defer s.mu.Unlock()
	select {
	case <-s.stopped:
	default:
		close(s.stopped)
	}
}

func (s *Server) end() {
	cmd, done := s.process()
	for _, sig := range []syscall.Signal{syscall.SIGINT, syscall.SIGQUIT, syscall.SIGKILL} {
		_ = cmd.Process.Signal(sig)
		select {
		case <-done:
			return
		case <-time.After(10 * time.Second):
		}
	}
}

func freePort() (int, error) {
	l, err := net.Listen("tcp", "127.0.0.1:0")
	if err != nil {
		return 0, fmt.Errorf("no free port on loopback: %w", err)
	}
	defer l.Close()
	return l.Addr().(*net.TCPAddr).Port, nil
}

// fullOr says in a sentence that the disk is full, where that is what an error
// comes down to.
func fullOr(err error) error {
	if errors.Is(err, syscall.ENOSPC) || strings.Contains(err.Error(), "No space left") {
		return errors.New("the disk is full. Make room, or set CORTE_DATA to a folder on another disk")
	}
	return err
}

// lastLine is the last thing of weight that a program said: its last complaint,
// where there is one, and not the hint that follows it.
func lastLine(out []byte) string {
	lines := strings.Split(strings.TrimSpace(string(out)), "\n")
	for _, line := range slices.Backward(lines) {
		if strings.Contains(line, "FATAL:") || strings.Contains(line, "PANIC:") {
			return line
		}
	}
	return lines[len(lines)-1]
}
