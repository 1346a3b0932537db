package e2e

import (
	"fmt"
	"testing"

	"corvek/core/bench"
	"corvek/internal/job/jobtest"
	"corvek/internal/whole"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// tried runs one attempt on the page: the change, what is read of each step, and the close.
func (u *user) tried(tag string, number int, change, done, part string, reads [][2]string) *bench.State {
	u.t.Helper()
	u.open("/jobs/" + tag + "/prove")
	if number > 1 {
		u.typeInto(u.MustElement("#one_change"), change)
	}
	if part != "" {
		u.MustElement("#change_kind").MustSelect(done)
		u.MustElement("#change_part").MustSelect(part)
	}
	u.press(u.MustElementR("button", fmt.Sprintf("Start attempt %d", number)))
	u.MustElementR("h2", fmt.Sprintf("Attempt %d", number))
	u.ready()
	for _, r := range reads {
		field := fmt.Sprintf("u1/attempt/%d/point/%s", number, r[0])
		if field[len(field)-5:] == "/word" {
			u.tap(field, r[1])
			continue
		}
		u.unfold(field)
		u.fill(field, r[1])
	}
	u.ready()
	u.press(u.MustElementR("button", "Close the attempt"))
	u.MustElementR("button", fmt.Sprintf("Start attempt %d", number+1))
	u.ready()
	return u.state(tag)
}

// atTheStand is a pump that is built, with the cautions of its test read.
func atTheStand(t *testing.T) (u *user, tag string) {
	t.Helper()
	s := serve(t)
	u = enter(t, s, "iva", false)
	tag = jobtest.Built(t, s.jobs, "piston_pump_with_cartridge")
	u.open("/jobs/" + tag + "/prove")
	u.cautions()
	return u, tag
}

// leads is the part that leads for a step, with what is advised next.
func leads(st *bench.State, step string) (string, *bench.Advised) {
	for _, l := range st.Left() {
		if l.Step == step {
			return l.Parts[0].Name, l.Next
		}
	}
	return "", nil
}

// Three faults in a row, worked on the page from stiff to good: a cartridge cocked by a proud pin, its drum out of
// square, and a control that is dead. A ring that is slackened points behind itself, a pin that is seated is a part
// of the truth, and what was swapped in vain is acquitted.
func TestThreeFaultsAreWorkedOnThePage(t *testing.T) {
	whole.Only(t)
	t.Parallel()
	u, tag := atTheStand(t)
	const turn = "turn by hand"
	stiff := func(torque string) [][2]string {
		return [][2]string{{"hand_turn/word", "stiff"}, {"hand_turn/torque", torque}}
	}
	st := u.tried(tag, 1, "", "", "", stiff("16 N·m"))
	_, next := leads(st, turn)
	require.NotNil(t, next)
	assert.Contains(t, u.MustElement(".left-of").MustText(), next.Does)

	st = u.tried(tag, 2, "cover bolts slackened", "joint slackened", "Cover bolts", stiff("16 N·m"))
	ledgerSays(t, st, "as bad with cover bolts slack")
	st = u.tried(
		tag,
		3,
		"front bearing swapped",
		"swapped for one known to be good",
		"Front bearing",
		stiff("16 N·m"),
	)
	ledgerSays(t, st, "front bearing is acquitted of turn by hand")
	st = u.tried(
		tag,
		4,
		"locating pin driven home",
		"out and fitted again as it belongs",
		"Locating pins",
		stiff("9 N·m"),
	)
	ledgerSays(
		t,
		st,
		"turn by hand came nearer, 16 N·m to 9 N·m: locating pins is a part of it, something else is left",
	)
	part, _ := leads(st, turn)
	assert.NotContains(t, []string{"Locating pins", "Front bearing"}, part)
	free := [][2]string{{"hand_turn/word", "free"}, {"hand_turn/torque", "2 N·m"}}
	dead := append(free, [2]string{"compensator/word", "not at all"}, [2]string{"compensator/pressure", "175 bar"},
		[2]string{"compensator/time", "4 s"})
	st = u.tried(tag, 5, "drum faced square", "new, or reworked and measured", "Cartridge drum", dead)
	ledgerSays(t, st, "turn by hand came right: cartridge drum bore it")
	part, next = leads(st, "compensator answers")
	require.NotNil(t, next)
	assert.Equal(t, "Control spool", part)
	answers := append(free, [2]string{"compensator/word", "at once"}, [2]string{"compensator/pressure", "175 bar"},
		[2]string{"compensator/time", "0.1 s"})
	st = u.tried(tag, 6, "control spool swapped", "swapped for one known to be good", "Control spool", answers)
	ledgerSays(t, st, "compensator answers came right: control spool bore it")
	assert.Empty(t, st.Left())
	u.quiet()
}

// What hides a fault is called so and cures nothing, and a fault that a change brings in is laid to what was
// changed or came off for it.
func TestHiddenAndBroughtInOnThePage(t *testing.T) {
	whole.Only(t)
	t.Parallel()
	u, tag := atTheStand(t)
	const swapped = "swapped for one known to be good"
	reads := func(turn, answers string) [][2]string {
		return [][2]string{
			{"hand_turn/word", turn},
			{"compensator/word", answers},
			{"compensator/pressure", "175 bar"},
		}
	}
	u.tried(tag, 1, "", "", "", reads("free", "hunts"))
	st := u.tried(tag, 2, "filled with thicker oil", "", "", reads("free", "at once"))
	ledgerSays(t, st, "compensator answers came right because the fault is hidden, not found")
	part, _ := leads(st, "compensator answers")
	assert.NotEmpty(t, part, "it is left as it was")
	st = u.tried(
		tag,
		3,
		"control spool swapped, its own oil again",
		swapped,
		"Control spool",
		reads("stiff", "at once"),
	)
	ledgerSays(t, st, "compensator answers came right: control spool bore it")
	ledgerSays(
		t,
		st,
		"turn by hand went wrong with this change: control spool, or how what came off for it went back",
	)
	st = u.tried(tag, 4, "control cap drawn again", "out and fitted again as it belongs", "Control cap",
		reads("free", "at once"))
	ledgerSays(t, st, "turn by hand came right: control cap bore it")
	assert.Empty(t, st.Left())
	u.quiet()
}

func ledgerSays(t *testing.T, st *bench.State, words string) {
	t.Helper()
	var all []string
	for _, l := range st.Told() {
		all = append(all, l.Words)
	}
	assert.Contains(t, fmt.Sprint(all), words)
}
