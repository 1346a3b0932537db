package wording

// Asked says what is asked back after a hand-over.
func Asked(kind string) string {
	return named(kind, map[string]string{"first_hours": "after the first hours", "first_day": "after the first day",
		"level": "level and leaks looked at", "complaint": "the complaint tried on the machine",
		"refit": "how it runs since it was refitted", "cause": "what ended the old one: cured, or does it run on it",
		"sump": "the other sump: did it gain again"})
}

// CameBack says what the answer was.
func CameBack(result string) string {
	return named(result, map[string]string{"good": "good", "came_again": "the complaint came again",
		"other_fault": "another fault", "not_refitted": "not refitted yet"})
}

func named(code string, words map[string]string) string {
	if w := words[code]; w != "" {
		return w
	}
	return Plain(code)
}
