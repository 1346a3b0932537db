package plan

import (
	"bufio"
	"fmt"
	"io"
	"strconv"
	"strings"
)

// mostJobShop is how many jobs or machines an instance may have.
const mostJobShop = 200

// JobShop reads an instance of the job shop in the usual text format: the counts of jobs and machines, then a line a
// job with machine (from 0) and time of each operation in turn. Lines that do not begin with a digit are passed over.
// The plan with the least cost has the least makespan: all is one job that is due at once.
func JobShop(r io.Reader) (*Problem, error) {
	numbers, err := numbersOf(r)
	if err != nil {
		return nil, err
	}
	if len(numbers) < 2 {
		return nil, fmt.Errorf("the counts of jobs and machines are missing")
	}
	jobs, machines := numbers[0], numbers[1]
	if jobs < 1 || machines < 1 || jobs > mostJobShop || machines > mostJobShop {
		return nil, fmt.Errorf("%d jobs on %d machines: 1 to %d are accepted", jobs, machines, mostJobShop)
	}
	rest := numbers[2:]
	if len(rest) != 2*jobs*machines {
		return nil, fmt.Errorf(
			"%d numbers follow the counts, %d jobs on %d machines need %d",
			len(rest),
			jobs,
			machines,
			2*jobs*machines,
		)
	}
	p := &Problem{Jobs: []Job{{Name: "all", HasDue: true, Cost: 1}}}
	for m := range machines {
		p.Resources = append(p.Resources, Resource{Name: strconv.Itoa(m)})
	}
	for j := range jobs {
		for k := range machines {
			machine, time := rest[2*(j*machines+k)], rest[2*(j*machines+k)+1]
			if machine >= machines || time < 0 || time > 1e6 {
				return nil, fmt.Errorf("job %d, operation %d: machine %d for %d", j, k, machine, time)
			}
			t := Task{Name: fmt.Sprintf("%d.%d", j, k), Work: time, Needs: [][]int{{machine}}}
			if k > 0 {
				t.After = []After{{Task: len(p.Tasks) - 1}}
			}
			p.Tasks = append(p.Tasks, t)
		}
	}
	return p, nil
}

func numbersOf(r io.Reader) (out []int, err error) {
	lines := bufio.NewScanner(r)
	for lines.Scan() {
		line := strings.TrimSpace(lines.Text())
		if line == "" || line[0] < '0' || line[0] > '9' {
			continue
		}
		for _, word := range strings.Fields(line) {
			n, err := strconv.Atoi(word)
			if err != nil {
				return nil, fmt.Errorf("%q is no whole number", word)
			}
			if out = append(out, n); len(out) > 2*mostJobShop*mostJobShop+2 {
				return nil, fmt.Errorf("too many numbers")
			}
		}
	}
	return out, lines.Err()
}
