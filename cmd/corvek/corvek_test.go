package main

import (
	"bytes"
	"encoding/json"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"testing"

	"corvek/core/calc"
	"corvek/internal/store/storetest"

	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

var binary string

func TestMain(m *testing.M) { storetest.Main(builder{m}) }

// builder makes the real binary once; the tests run it as a shell would.
type builder struct{ m *testing.M }

func (b builder) Run() int {
	dir, err := os.MkdirTemp("", "corvek-bin-")
	if err != nil {
		return 1
	}
	defer os.RemoveAll(dir)
	binary = filepath.Join(dir, "corvek")
	if out, err := exec.Command("go", "build", "-o", binary, ".").CombinedOutput(); err != nil {
		_, _ = os.Stderr.Write(out)
		return 1
	}
	return b.m.Run()
}

// run gives what the command wrote and its exit code.
func run(t *testing.T, in string, env []string, args ...string) (stdout, stderr string, code int) {
	t.Helper()
	cmd := exec.Command(binary, args...)
	cmd.Stdin = strings.NewReader(in)
	cmd.Env = append(os.Environ(), env...)
	var out, errs bytes.Buffer
	cmd.Stdout, cmd.Stderr = &out, &errs
	err := cmd.Run()
	if exit, is := err.(*exec.ExitError); is {
		return out.String(), errs.String(), exit.ExitCode()
	}
	require.NoError(t, err)
	return out.String(), errs.String(), 0
}

func TestCalcFromTheShell(t *testing.T) {
	out, _, code := run(t, "", nil, "calc")
	assert.Zero(t, code)
	assert.Equal(t, len(calc.All()), strings.Count(out, "\n"))

	out, _, code = run(t, `{"bore":"63 mm","pressure":"210 bar"}`, nil, "calc", "cylinder")
	assert.Zero(t, code)
	var answer struct {
		Name    string
		Results map[string]struct {
			Value float64
			Unit  string
		}
		Steps []string
	}
	require.NoError(t, json.Unmarshal([]byte(out), &answer))
	assert.Equal(t, "cylinder", answer.Name)
	assert.InDelta(t, 65462.1, answer.Results["push_force"].Value, 0.1)
	assert.Equal(t, "N", answer.Results["push_force"].Unit)
	assert.NotEmpty(t, answer.Steps)
}

func TestCalcRefusesWithExitTwo(t *testing.T) {
	for _, c := range []struct{ name, in, field string }{
		{"cylinder", `{"bore":"63"}`, "bore"}, {"cylinder", `{"bore":"63 mm","pressure":"1 bar","x":1}`, "x"},
		{"cylinder", `{`, ""}, {"cylinder", ``, ""}, {"nonesuch", `{}`, "name"},
	} {
		out, _, code := run(t, c.in, nil, "calc", c.name)
		assert.Equal(t, 2, code, c.in)
		var answer struct {
			Error struct{ Field, Text string }
		}
		require.NoError(t, json.Unmarshal([]byte(out), &answer))
		assert.Equal(t, c.field, answer.Error.Field)
		assert.NotEmpty(t, answer.Error.Text)
	}
}

func TestHelpOfEveryCalculator(t *testing.T) {
	for _, d := range calc.All() {
		out, _, code := run(t, "", nil, "calc", d.Name, "--help")
		assert.Zero(t, code)
		for _, in := range d.Inputs {
			assert.Contains(t, out, in.Name, d.Name)
		}
		assert.Contains(t, out, d.Formula)
		assert.Contains(t, out, "Source:")
	}
}

// A job goes out as a file and comes into another store.
func TestExportAndImport(t *testing.T) {
	here, there := []string{"DATABASE_URL=" + storetest.URL(t)}, []string{"DATABASE_URL=" + storetest.URL(t)}
	out, errs, code := run(t, "", here, "migrate")
	require.Zero(t, code, errs)
	assert.Contains(t, out, "up to date")
	out, errs, code = run(t, "", here, "import", "../../demo/jobs/T-0417.json")
	require.Zero(t, code, errs)
	assert.Contains(t, out, "T-0417")
	_, errs, code = run(t, "", here, "import", "../../demo/jobs/T-0417.json")
	assert.Equal(t, 1, code)
	assert.Contains(t, errs, "here already")

	file := filepath.Join(t.TempDir(), "job.zip")
	_, errs, code = run(t, "", here, "export", "T-0417", "-o", file)
	require.Zero(t, code, errs)
	_, errs, code = run(t, "", there, "import", file)
	require.Zero(t, code, errs)

	_, errs, code = run(t, "", here, "export", "T-9999", "-o", file+"2")
	assert.Equal(t, 1, code)
	assert.Contains(t, errs, "not found")
	_, err := os.Stat(file + "2")
	assert.True(t, os.IsNotExist(err), "a failed export leaves no file")
}

func TestPersonNeedsAProperPassword(t *testing.T) {
	env := []string{"DATABASE_URL=" + storetest.URL(t)}
	_, errs, code := run(t, "short\n", env, "person", "--sign-in", "nia", "--name", "Nia Holt")
	assert.Equal(t, 1, code)
	assert.Contains(t, errs, "8 letters")
	out, errs, code := run(t, "long enough\n", env, "person", "--sign-in", "nia", "--name", "Nia Holt", "--role",
		"lead")
	require.Zero(t, code, errs)
	assert.Contains(t, out, "saved nia")
	_, errs, code = run(t, "long enough\n", env, "person", "--sign-in", "nia", "--name", "Nia Holt", "--role", "king")
	assert.Equal(t, 1, code)
	assert.Contains(t, errs, "the role is one of")
	// Capitals make no other person, and letters beyond a to z make initials too.
	out, errs, code = run(t, "another one\n", env, "person", "--sign-in", "NIA", "--name", "Øyvind Åse Berg",
		"--role", "lead")
	require.Zero(t, code, errs)
	assert.Contains(t, out, "saved nia")
	conn, err := pgx.Connect(t.Context(), strings.TrimPrefix(env[0], "DATABASE_URL="))
	require.NoError(t, err)
	defer conn.Close(t.Context())
	var initials string
	var n int
	require.NoError(t, conn.QueryRow(t.Context(), "SELECT max(initials), count(*) FROM people").Scan(&initials, &n))
	assert.Equal(t, "ØÅB", initials)
	assert.Equal(t, 1, n)
}

func TestADatabaseThatIsNotThereIsSaidInOneSentence(t *testing.T) {
	_, errs, code := run(t, "", []string{"DATABASE_URL=postgres://nobody@127.0.0.1:1/x?connect_timeout=1"}, "migrate")
	assert.Equal(t, 1, code)
	assert.Contains(t, errs, "the database does not answer")
}

func TestFamilyCommand(t *testing.T) {
	out, _, code := run(t, "", nil, "family")
	assert.Zero(t, code)
	assert.Contains(t, out, "axial_piston_pump")
	out, _, code = run(t, "", nil, "family", "axial_piston_pump")
	assert.Zero(t, code)
	assert.Contains(t, out, "flow_spool")
	out, _, code = run(t, "", nil, "family", "axial_piston_pump", "pc")
	assert.Zero(t, code)
	assert.NotContains(t, out, "flow_spool")
	assert.Regexp(t, `retainer\s+1\s+retainer`, out)
	for _, args := range [][]string{{"dragon"}, {"axial_piston_pump", "dragon"}} {
		out, _, code = run(t, "", nil, append([]string{"family"}, args...)...)
		assert.Equal(t, 2, code)
		assert.Contains(t, out, "dragon")
	}
}

func TestExplainCommand(t *testing.T) {
	out, _, code := run(t, `{"family":"winch_brake_pack","evidence":[{"code":"springs_turned","state":"seen"},`+
		`{"code":"recent_work","state":"seen"}]}`, nil, "explain")
	assert.Zero(t, code)
	assert.Contains(t, out, `"cause": "springs_wrong"`)
	out, _, code = run(t, "", nil, "explain", "--codes", "winch_brake_pack")
	assert.Zero(t, code)
	assert.Contains(t, out, "springs_turned")
	for _, c := range []struct {
		in   string
		args []string
		says string
	}{
		{`{"family":"winch_brake_pack","evidence":[{"code":"dragon","state":"seen"}]}`, nil, `"field":"evidence[0]"`},
		{`{`, nil, `"field":"case"`},
		{"", []string{"--codes", "dragon"}, `"field":"family"`},
		{"", []string{"no_such_file.json"}, `"field":"case"`},
	} {
		out, _, code := run(t, c.in, nil, append([]string{"explain"}, c.args...)...)
		assert.Equal(t, 2, code, c.says)
		assert.Contains(t, out, c.says)
	}
	out, _, code = run(t, "", nil, "explain", "--trial", "10", "gerotor_pump")
	assert.Zero(t, code)
	assert.Contains(t, out, "gerotor_pump")
}

func TestPlanBenchFromTheShell(t *testing.T) {
	out, _, code := run(t, "", nil, "plan", "bench", "../../core/plan/testdata/6x6.txt")
	assert.Zero(t, code)
	assert.Contains(t, out, "makespan 55, proved")

	out, _, code = run(t, "", nil, "plan", "bench", "corvek_test.go")
	assert.Equal(t, 2, code)
	assert.Contains(t, out, "counts of jobs and machines")
}
