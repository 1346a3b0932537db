//go:build audit

package main

import (
	"bufio"
	"bytes"
	"context"
	"fmt"
	"io"
	"log"
	"math/rand/v2"
	"net"
	"net/http"
	"net/http/cookiejar"
	"net/http/httptest"
	"net/http/httputil"
	"net/url"
	"os"
	"os/exec"
	"regexp"
	"strconv"
	"strings"
	"sync"
	"sync/atomic"
	"syscall"
	"testing"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A shop of sixteen benches on two instances of the program over one database, reached through one
// proxy as a shop would have it. Each bench writes words of its own and looks at what the others write.

const (
	benchesOfShop = 16
	password      = "long enough"
)

// The jobs of the trial, and the fields that their four benches write to: all show at Receive.
var (
	trialJobs   = []string{"T-0417", "T-0412", "T-0409", "T-0398"}
	trialFields = []string{"job/caller", "job/complaint", "job/title", "u1/serial"}
)

// instance is one program that serves.
type instance struct {
	t    *testing.T
	env  []string
	base atomic.Pointer[url.URL]
	cmd  *exec.Cmd
}

// begin starts the program on the port it had, or on a free one.
func (i *instance) begin() {
	i.t.Helper()
	address := "127.0.0.1:0"
	if u := i.base.Load(); u != nil {
		address = u.Host
	}
	i.cmd = exec.Command(binary, "serve", "--addr", address)
	i.cmd.Env = append(os.Environ(), i.env...)
	out, err := i.cmd.StdoutPipe()
	require.NoError(i.t, err)
	var errs bytes.Buffer
	i.cmd.Stderr = &errs
	require.NoError(i.t, i.cmd.Start())
	lines := bufio.NewScanner(out)
	for lines.Scan() {
		if m := servesOn.FindStringSubmatch(lines.Text()); m != nil {
			u, err := url.Parse(m[1])
			require.NoError(i.t, err)
			i.base.Store(u)
			go func() { _, _ = io.Copy(io.Discard, out) }()
			return
		}
	}
	require.Fail(i.t, "the program does not serve", errs.String())
}

func (i *instance) kill() {
	_ = i.cmd.Process.Kill()
	_ = i.cmd.Wait()
}

func (i *instance) stop() {
	_ = i.cmd.Process.Signal(syscall.SIGTERM)
	_ = i.cmd.Wait()
}

// front is the proxy before both instances: each request goes to the next one, and to the other where
// nobody is there.
func front(t *testing.T, instances []*instance) string {
	var turn atomic.Int64
	dial := func(ctx context.Context, network, _ string) (conn net.Conn, err error) {
		first := turn.Add(1)
		for n := range instances {
			u := instances[(int(first)+n)%len(instances)].base.Load()
			if conn, err = (&net.Dialer{}).DialContext(ctx, network, u.Host); err == nil {
				return conn, nil
			}
		}
		return nil, err
	}
	proxy := &httputil.ReverseProxy{
		Rewrite: func(r *httputil.ProxyRequest) {
			r.SetURL(&url.URL{Scheme: "http", Host: "corvek"})
			r.Out.Host = r.In.Host
		},
		Transport:     &http.Transport{DialContext: dial, DisableKeepAlives: true},
		FlushInterval: -1,
		ErrorLog:      log.New(io.Discard, "", 0),
		ErrorHandler:  func(w http.ResponseWriter, _ *http.Request, _ error) { w.WriteHeader(http.StatusBadGateway) },
	}
	server := httptest.NewServer(proxy)
	t.Cleanup(func() {
		server.CloseClientConnections()
		server.Close()
	})
	return server.URL
}

// shopOfBenches is what goes on.
type shopOfBenches struct {
	t    *testing.T
	base string
	// database is the address of the one that takes writes, for the judge.
	database func() string
	end      atomic.Bool

	sync.Mutex
	wrote [benchesOfShop][]time.Time // when word N of each was answered for
	saw   [benchesOfShop]map[int]int // by bench that looks: how many words of a writer it saw
	late  []string
	worst time.Duration
}

// stockShop fills a new shop: people and jobs, by the program's own commands.
func stockShop(t *testing.T, env []string) {
	t.Helper()
	for n := range benchesOfShop {
		_, errs, code := run(t, password+"\n", env, "person", "--sign-in", signIn(n), "--name",
			fmt.Sprintf("Bench %d", n), "--role", "lead")
		require.Zero(t, code, errs)
	}
	for _, tag := range trialJobs {
		_, errs, code := run(t, "", env, "import", "../../demo/jobs/"+tag+".json")
		require.Zero(t, code, errs)
	}
}

func signIn(n int) string { return fmt.Sprintf("bench%d", n) }

// word is what a bench writes as its so many'th.
func word(n, i int) string { return fmt.Sprintf("bench %d word %d.", n, i) }

var aWord = regexp.MustCompile(`bench (\d+) word (\d+)\.`)

// at gives a bench at a browser, signed in.
func (s *shopOfBenches) at(n int) *bench {
	s.t.Helper()
	jar, err := cookiejar.New(nil)
	require.NoError(s.t, err)
	b := &bench{t: s.t, base: s.base, client: &http.Client{Jar: jar, Timeout: 20 * time.Second}}
	status, body := b.post("/sign-in", url.Values{"sign_in": {signIn(n)}, "password": {password}})
	require.Equal(s.t, http.StatusOK, status, body)
	b.csrf = b.token("/jobs/" + trialJobs[n%len(trialJobs)] + "/receive")
	return b
}

// writes one word after the other until the trial ends, each again until it is answered for.
func (s *shopOfBenches) writes(n int, b *bench) {
	tag, field := trialJobs[n%len(trialJobs)], trialFields[n/len(trialJobs)]
	stands := s.stands(tag, field)
	r := rand.New(rand.NewPCG(uint64(n), 11))
	for i := 0; !s.end.Load(); i++ {
		is := word(n, i)
		form := url.Values{"field": {field}, "value": {is}, "base": {stands}}
		for kept := false; !kept; {
			status, text := b.post("/jobs/"+tag+"/set", form)
			switch {
			case status == http.StatusOK, status == http.StatusConflict && strings.Contains(text, is):
				kept = true
			case status == 0, status == http.StatusBadGateway, status == http.StatusServiceUnavailable:
				if s.end.Load() {
					return
				}
				time.Sleep(50 * time.Millisecond)
			default:
				assert.Failf(s.t, "refused", "%s of %s: %d %.300s", field, tag, status, text)
				return
			}
		}
		s.Lock()
		s.wrote[n] = append(s.wrote[n], time.Now())
		s.Unlock()
		stands = is
		time.Sleep(time.Duration(500+r.IntN(1500)) * time.Millisecond)
	}
}

// looks as a page does: it hears that its job was written to, and asks for it. Where the line breaks it
// listens anew half a second later, as the browser is told to.
func (s *shopOfBenches) looks(ctx context.Context, n int, b *bench) {
	tag := trialJobs[n%len(trialJobs)]
	listening := *b.client
	listening.Timeout = 0
	for ctx.Err() == nil {
		req, _ := http.NewRequestWithContext(ctx, http.MethodGet, s.base+"/jobs/"+tag+"/changes", nil)
		if answer, err := listening.Do(req); err == nil {
			for lines := bufio.NewScanner(answer.Body); lines.Scan(); {
				if !strings.HasPrefix(lines.Text(), "data: ") {
					continue
				}
				for !s.sees(n, b, tag) && ctx.Err() == nil {
					time.Sleep(500 * time.Millisecond)
				}
			}
			answer.Body.Close()
		}
		time.Sleep(500 * time.Millisecond)
	}
}

// sees asks for the page and notes which words stand on it. It is false where the page did not come, and
// then asked again after half a second, as the page does.
func (s *shopOfBenches) sees(n int, b *bench, tag string) bool {
	answer, err := b.client.Get(s.base + "/jobs/" + tag + "/receive")
	if err != nil {
		return false
	}
	defer answer.Body.Close()
	page, err := io.ReadAll(answer.Body)
	if err != nil || answer.StatusCode != http.StatusOK {
		return false
	}
	now := time.Now()
	s.Lock()
	defer s.Unlock()
	for _, m := range aWord.FindAllSubmatch(page, -1) {
		writer, _ := strconv.Atoi(string(m[1]))
		i, _ := strconv.Atoi(string(m[2]))
		if writer == n {
			continue
		}
		if s.saw[n] == nil {
			s.saw[n] = map[int]int{}
		}
		for ; s.saw[n][writer] <= i; s.saw[n][writer]++ {
			at := s.saw[n][writer]
			if at >= len(s.wrote[writer]) {
				continue // seen before its writer had the answer
			}
			took := now.Sub(s.wrote[writer][at])
			s.worst = max(s.worst, took)
			if took > 2*time.Second {
				s.late = append(
					s.late,
					fmt.Sprintf("word %d of bench %d was seen by bench %d after %s", at, writer, n, took),
				)
			}
		}
	}
	return true
}

// stands is what the field holds before the trial, as the database has it.
func (s *shopOfBenches) stands(tag, field string) (value string) {
	conn, err := pgx.Connect(s.t.Context(), s.database())
	require.NoError(s.t, err)
	defer conn.Close(context.WithoutCancel(s.t.Context()))
	column := map[string]string{"u1/serial": "u.serial"}[field]
	if column == "" {
		column = "j." + strings.TrimPrefix(field, "job/")
	}
	require.NoError(s.t, conn.QueryRow(s.t.Context(), "SELECT "+column+
		" FROM jobs j JOIN units u ON u.job_id = j.id AND u.number = 1 WHERE j.tag = $1", tag).Scan(&value))
	return value
}

// lost are words that were answered for and are not in the record, as the database has it.
func (s *shopOfBenches) lost() (lost []string) {
	conn, err := pgx.Connect(s.t.Context(), s.database())
	require.NoError(s.t, err)
	defer conn.Close(context.WithoutCancel(s.t.Context()))
	rows, err := conn.Query(s.t.Context(), `SELECT after FROM record_entries WHERE after LIKE 'bench %'`)
	require.NoError(s.t, err)
	kept, err := pgx.CollectRows(rows, pgx.RowTo[string])
	require.NoError(s.t, err)
	stand := map[string]bool{}
	for _, is := range kept {
		stand[is] = true
	}
	for n, words := range s.wrote {
		for i := range words {
			if !stand[word(n, i)] {
				lost = append(lost, word(n, i))
			}
		}
	}
	return lost
}

// unseen are words that one of the other benches at the job never saw.
func (s *shopOfBenches) unseen() (out []string) {
	for n := range benchesOfShop {
		for writer := n % len(trialJobs); writer < benchesOfShop; writer += len(trialJobs) {
			if writer != n && s.saw[n][writer] < len(s.wrote[writer]) {
				out = append(out, fmt.Sprintf("bench %d never saw %s", n, word(writer, len(s.wrote[writer])-1)))
			}
		}
	}
	return out
}

// work has all benches at work until during returns; then what was written is given two seconds to be seen.
func (s *shopOfBenches) work(during func()) {
	ctx, leave := context.WithCancel(s.t.Context())
	var writers, readers sync.WaitGroup
	benches := make([]*bench, benchesOfShop)
	for n := range benches {
		benches[n] = s.at(n)
	}
	for n, b := range benches {
		readers.Go(func() { s.looks(ctx, n, b) })
		writers.Go(func() { s.writes(n, b) })
	}
	during()
	s.end.Store(true)
	writers.Wait()
	time.Sleep(2 * time.Second)
	leave()
	readers.Wait()
}

func (s *shopOfBenches) words() (n int) {
	s.Lock()
	defer s.Unlock()
	for _, words := range s.wrote {
		n += len(words)
	}
	return n
}
