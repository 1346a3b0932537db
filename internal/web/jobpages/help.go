package jobpages

import (
	"corvek/internal/web/site"
)

// stationHelp says of each station what it is for, what it asks and why, and how a slip is
// taken back.
var stationHelp = map[string][]string{
	"receive": {
		"Write down what it is and what its owner says of it, in his words.",
		"Maker, model and serial are read off the plate; rotation is seen on the shaft end.",
		"Duty is what the machine asks of the unit: without it nothing can be judged later.",
		"Gauges first: what can be tried at the machine before the unit is opened stands in its own tab.",
		"A unit that came without its machine: say so there, and it may be opened.",
		"As received: run it if it can run. What it does before the work is the only measure of the work.",
		"Drain into a pale vessel, note the level, look at the oil before it is thrown away.",
	},
	"strip": {
		"Take the unit apart and keep what the hands forget: order, facing, count.",
		"“Off, found” takes the part off and says that all its pieces are there; “count later” leaves " +
			"them open.",
		"A count is typed after counting. What is missing is still in the unit or went into the system.",
		"Facing is noted before a part is laid down; a stack is laid out, the end that came off first at the left.",
		"Look before you wipe: marks are tapped where the part is in the hand, and photographed before cleaning.",
		"Different on this unit: another number, a part less or more. Say so at the part.",
		"Springs and rings under load carry a caution; read it before they are let go.",
	},
	"measure": {
		"Measure what wears and hold it against its limit.",
		"A caliper types the figure and Enter: the next field is ready. The unit in the field is the one it takes.",
		"A figure far from this unit's own size is kept with a question. Tap it or type it again if it is so.",
		"With leaves, say whether the total or one side was measured, then what each leaf does.",
		"IN and OUT allow for what the instrument can tell; “?” says what would settle it.",
		"A limit shows where it is from. A maker's figure, typed with its source, wins over guidance.",
	},
	"explain": {
		"Find out why it failed, not only what broke.",
		"“Look at this next” is the look that tells most for its minutes. Answer seen, or looked for " +
			"and absent.",
		"What nobody looked at counts for nothing, neither for nor against.",
		"Each cause shows what speaks for it and against it; a mark that it does not explain is named.",
		"Set the root cause when the marks carry it. One outside the unit asks what is done about it, and by whom.",
		"Not found is an answer too: say what was ruled out.",
	},
	"decide": {
		"Say for each part: keep, rework or new.",
		"A proposal says what it rests on. Choose otherwise where you know better, and write down why.",
		"What nobody looked at stays open.",
		"The offers compare a rebuild, an overhaul and a new unit; a sum without a price says “at least”.",
		"The customer's answer is written down with who gave it and when.",
	},
	"kit": {
		"Bring a piece to every place that is renewed.",
		"Type, scan or paste the list. A piece goes to its place by itself only where it fits one alone.",
		"Count what came: a pack is not a count.",
		"A piece left over asks why: it belongs to another variant, or a place was forgotten.",
		"Rubber is held against the fluid, the heat and its age.",
	},
	"build": {
		"Put it together in the reverse order of the strip record.",
		"Each part says what it goes over, which way in, wet with what, and how many.",
		"Torque follows from thread, class and oil; what is not known is not guessed.",
		"After each joint feel the shaft: a drag that comes with one joint is told by it.",
		"A clearance that the work changed is measured again.",
		"Fill and prime before it runs.",
	},
	"prove": {
		"Run the unit and read what it does.",
		"Start an attempt. Each step says what is read, at what pressure, and how long it is held.",
		"The planned pressure stands beside its field; type the one that was reached.",
		"Taken from a stand: wait until it stands still. A simulated stand is an exercise.",
		"A step that cannot apply is said so, with why.",
		"A failed attempt stays in the ledger. Change one thing, and test again.",
	},
	"handover": {
		"Give the unit back with what was found and what to watch.",
		"What is still open stands here, with the way to it. A lead can waive with a reason that is printed.",
		"The start-up card goes with the unit; report and certificate say what was shown.",
		"Write down who collects it, what is given back with it, and what the next one should know.",
		"What is asked back later gets a day.",
		"Handing over is asked once and is not taken back; a lead can open the job again with a reason.",
	},
}

// helpFor is the help of a station; nil beside the stations.
func helpFor(code, name string) *site.StationHelp {
	lines := stationHelp[code]
	if lines == nil {
		return nil
	}
	return &site.StationHelp{Name: name, Lines: lines}
}
