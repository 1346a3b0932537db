package storetest

import (
	"context"
	"os"

	"corvek/internal/pgserver"
)

// Where a run of many test binaries keeps its one server: the addresses for the role that owns it
// and for the program's (internal/store/storetest/testserver). Without them each binary starts a
// server of its own.
const (
	OwnerVariable   = "CORVEK_TEST_OWNER_URL"
	ProgramVariable = "CORVEK_TEST_PROGRAM_URL"
)

// host is the server that the tests of this binary use.
type host struct {
	owner, program string
	shared         bool // with other binaries
	stop           func()
}

// begin reaches the server of the run, or starts one.
func begin(ctx context.Context) (*host, error) {
	if owner, program := os.Getenv(OwnerVariable), os.Getenv(ProgramVariable); owner != "" && program != "" {
		return &host{owner: owner, program: program, shared: true, stop: func() {}}, nil
	}
	folder, err := os.MkdirTemp("", "corvek-test-")
	if err != nil {
		return nil, err
	}
	server, err := pgserver.Start(ctx, folder, true)
	if err != nil {
		_ = os.RemoveAll(folder)
		return nil, err
	}
	return &host{owner: server.OwnerURL(), program: server.URL(), stop: func() {
		server.Stop()
		_ = os.RemoveAll(folder)
	}}, nil
}
