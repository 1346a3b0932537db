package report

import (
	"fmt"
	"strings"

	"corvek/core/bench"
	"corvek/core/unit"
	"corvek/core/wording"
)

// Causes tell of the causes beside the one concluded last: roots of rounds before, what
// gave way first, what contributed, each with what is done against it.
func Causes(st *bench.State) (out []string) {
	for _, n := range st.Causes() {
		if n.Number == 0 && n.Code == st.Conclude.Cause {
			continue
		}
		did := wording.Choice(unit.ScopeCause, "role", n.Role)
		if n.Number == 0 {
			did = fmt.Sprintf("root cause found in round %d", n.Round)
		}
		out = append(
			out,
			strings.ToUpper(did[:1])+did[1:]+": "+n.Name+wording.Behind(", ", n.Lies)+wording.Behind("; ", n.Words)+
				wording.Behind(
					". Against it: ",
					strings.TrimSuffix(n.Action, "."),
				)+wording.Behind(", by ", n.Owner)+".",
		)
	}
	return out
}

// actions are what is done at the machine against the causes, with who does it.
func actions(st *bench.State) (out []string) {
	for _, n := range st.Causes() {
		if n.Action != "" && (n.Outside || n.Number == 0) {
			out = append(out, strings.TrimSuffix(n.Action, ".")+wording.Behind(", by ", n.Owner))
		}
	}
	return out
}
